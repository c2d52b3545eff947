import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { PlainTable } from '../../ui/PlainTable';
import { Refusal } from '../../ui/Refusal';
import { capital } from '../../words/format';
import { intervalMaking, SCOPES, SETTINGS, settingValue, targetName } from '../../words/rules';
import { levelName } from '../../words/work';

type InForce = Schemas['RuleInForce'];

/** The rule that a setting comes from. */
const from = (s: InForce): string =>
  s.scope === 'house' || !s.key
    ? t`the house’s rules`
    : t`the rule for the ${SCOPES[s.scope]} ${targetName({ ...s, key: s.key })}`;

/** Which rules hold for a machine, where each comes from, and how its intervals come about. */
export function MachineRules({ tag }: { tag: string }) {
  const rules = useQuery({
    queryKey: ['machine-rules', tag],
    queryFn: () => unwrap(api.GET('/api/v1/assets/{tag}/rules', { params: { path: { tag } } })),
  });
  if (rules.isError) return <Refusal error={rules.error} retry={() => void rules.refetch()} />;
  if (!rules.data) return null;
  const { settings, intervals, currency } = rules.data;
  const nearer = settings.filter((s) => s.scope !== 'house').length;
  return (
    <section className="apart">
      <h2>{t`Rules that hold here`}</h2>
      <p className="quiet">
        {nearer === 0
          ? t`All of them are the house’s.`
          : t`${plural(nearer, { one: '# setting comes', other: '# settings come' })} from a nearer rule, the rest from the house’s.`}{' '}
        <Link to="/rules">{t`House rules`}</Link>
      </p>
      <dl className="rule-intervals">
        {intervals.map((i) => (
          <div key={i.level}>
            <dt>{capital(levelName(i.level))}</dt>
            <dd className="figures">{intervalMaking(i)}</dd>
          </div>
        ))}
        {intervals.length === 0 && <p>{t`The calendar asks for nothing.`}</p>}
      </dl>
      <details open={nearer > 0}>
        <summary>{t`All settings, and where each comes from`}</summary>
        <PlainTable
          head={
            <>
              <th scope="col">{t`Setting`}</th>
              <th scope="col">{t`Here`}</th>
              <th scope="col">{t`From`}</th>
            </>
          }
        >
          {SETTINGS.map((field) => {
            const set = settings.find((s) => s.setting === field.name);
            if (!set) return null;
            return (
              <tr key={field.name}>
                <th scope="row">{field.label}</th>
                <td>{settingValue(field, set.number ?? set.word ?? set.flag, currency)}</td>
                <td className={set.scope === 'house' ? 'quiet' : ''}>{from(set)}</td>
              </tr>
            );
          })}
        </PlainTable>
      </details>
    </section>
  );
}
