import { plural, t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { useLearnt, useRules, useWrite } from '../../api/queries';
import { PlainTable } from '../../ui/PlainTable';
import { Refusal } from '../../ui/Refusal';

import { SCOPES, SETTINGS, settingValue, targetName } from '../../words/rules';
import { EditRule } from './EditRule';
import { Learnt } from './Learnt';

type Rule = Schemas['LocalRuleAnswer'];

/** What a rule sets, in one line. */
function told(change: Schemas['RuleChange'], currency: string): string {
  return SETTINGS.filter((s) => change[s.name] !== null && change[s.name] !== undefined)
    .map((s) => `${s.label}: ${settingValue(s, change[s.name], currency)}`)
    .join(' · ');
}

/** The rules for some machines: nearer than those of the house. */
export function LocalRules({ currency }: { currency: string }) {
  const rules = useRules();
  const learnt = useLearnt();
  const [open, setOpen] = useState<Rule | 'new' | null>(null);
  const remove = useWrite(({ scope, key }: Rule) =>
    unwrap(api.PUT('/api/v1/rules', { body: { scope, key, change: {} } })),
  );
  return (
    <section className="apart" aria-labelledby="local-rules">
      <h2 id="local-rules">{t`Rules for some machines`}</h2>
      <p className="quiet">
        {t`For a site, a zone, a kind, a kind in a zone, a model or one machine; what is nearer wins in this order, setting by setting. A machine’s page shows which rules hold there.`}
      </p>
      {rules.isError && <Refusal error={rules.error} retry={() => void rules.refetch()} />}
      {remove.isError && <Refusal error={remove.error} />}
      {rules.data && rules.data.rules.length > 0 && (
        <PlainTable
          head={
            <>
              <th scope="col">{t`For`}</th>
              <th scope="col">{t`Sets`}</th>
              <th scope="col">{t`Machines`}</th>
              <th scope="col">
                <span className="visually-hidden">{t`Change`}</span>
              </th>
            </>
          }
        >
          {rules.data.rules.map((rule) => (
            <tr key={`${rule.scope} ${rule.key}`}>
              <th scope="row">
                <span className="quiet light">{SCOPES[rule.scope]}</span> {targetName(rule)}
              </th>
              <td>{told(rule.change, currency)}</td>
              <td className="figures">
                {rule.machines === 0
                  ? t`none now`
                  : plural(rule.machines, { one: '# machine', other: '# machines' })}
              </td>
              <td>
                <div className="button-row">
                  <Button onClick={() => setOpen(rule)}>{t`Change`}</Button>
                  <Button
                    loading={remove.isPending && remove.variables.key === rule.key}
                    onClick={() => remove.mutate(rule)}
                  >
                    {t`Take away`}
                  </Button>
                </div>
              </td>
            </tr>
          ))}
        </PlainTable>
      )}
      <p className="apart-small">
        <Button onClick={() => setOpen('new')} disabled={!rules.data}>
          {t`Add a rule for some machines`}
        </Button>
      </p>
      {learnt.isError && <Refusal error={learnt.error} retry={() => void learnt.refetch()} />}
      {learnt.data && rules.data && <Learnt learnt={learnt.data} known={rules.data} />}
      {open !== null && rules.data && (
        <EditRule
          rule={open === 'new' ? null : open}
          known={rules.data}
          currency={currency}
          onClose={() => setOpen(null)}
        />
      )}
    </section>
  );
}
