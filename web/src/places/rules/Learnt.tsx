import { plural, t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { AskReason } from '../../ui/AskReason';
import { fullDay, kelvin, tenths, whole } from '../../words/format';
import { targetName } from '../../words/rules';
import { levelName } from '../../words/work';
import { EditRule } from './EditRule';
import { FanCurve } from './FanCurve';

type Interval = Schemas['LearntIntervalAnswer'];

/** What the machines of a zone or model gather, and in what time, in words. */
function evidence(i: Interval): string {
  const machines = plural(i.machines, { one: '# machine', other: '# machines' });
  const jobs = i.jobs > 0 ? t` and ${plural(i.jobs, { one: '# proven job', other: '# proven jobs' })}` : '';
  const pace = t`${machines}${jobs} show ${tenths(i.kelvinPerMonth)} ± ${tenths(i.uncertaintyKelvinPerMonth)} K a month`;
  const time =
    typeof i.highMonths === 'number'
      ? t`${kelvin(i.muchKelvin)}, which are worth opening one for, gather in ${tenths(i.lowMonths)} to ${tenths(i.highMonths)} months`
      : t`${kelvin(i.muchKelvin)}, which are worth opening one for, gather in ${tenths(i.lowMonths)} months at the soonest`;
  return t`${pace}: ${time}.`;
}

const heading = (i: Interval): string =>
  t`${targetName(i)}: ${levelName(i.level)} every ${whole(i.months)} months, not ${whole(i.presentMonths)}`;

/** The rule that there is, or one that sets nothing yet. */
const ruleFor = (
  known: Schemas['LocalRulesAnswer'],
  scope: Schemas['RuleScope'],
  key: string,
  name: string,
): Schemas['LocalRuleAnswer'] =>
  known.rules.find((r) => r.scope === scope && r.key === key) ?? {
    scope,
    key,
    name,
    machines: 0,
    change: {},
  };

/** Intervals that the house's own record contradicts, and the age at which to change fans: taken, or not, by a person. */
export function Learnt({
  learnt,
  known,
}: {
  learnt: Schemas['LearntAnswer'];
  known: Schemas['LocalRulesAnswer'];
}) {
  const [taken, setTaken] = useState<Interval | null>(null);
  const [refused, setRefused] = useState<Interval | null>(null);
  const [fans, setFans] = useState<Schemas['FanLivesAnswer'] | null>(null);
  const refuse = useWrite((body: Schemas['IntervalRefusal']) =>
    unwrap(api.POST('/api/v1/rules/learnt/refusals', { body })),
  );
  const open = learnt.intervals.filter((i) => !i.refused);
  const closed = learnt.intervals.filter((i) => i.refused);
  return (
    <section className="apart" aria-labelledby="learnt">
      <h2 id="learnt">{t`What the house’s own record says`}</h2>
      <p className="quiet">
        {t`From the pace at which its machines gather wear, and from its proven jobs. Nothing changes until somebody takes it.`}
      </p>
      {open.length === 0 && (
        <p>
          {closed.length > 0
            ? t`Nothing to suggest besides what was not wanted.`
            : t`Nothing to suggest. It takes five machines of a zone or model that were measured for two months or more, and wear that does not go with their interval.`}
        </p>
      )}
      <ul className="rules-learnt">
        {open.map((i) => (
          <li key={`${i.scope} ${i.key} ${i.level}`}>
            <div>
              <strong>{heading(i)}</strong>
              <div className="quiet">{evidence(i)}</div>
            </div>
            <div className="button-row">
              <Button onClick={() => setTaken(i)}>{t`Look at it and take it`}</Button>
              <Button onClick={() => setRefused(i)}>{t`Not for us`}</Button>
            </div>
          </li>
        ))}
      </ul>
      {closed.length > 0 && (
        <details>
          <summary>{plural(closed.length, { one: '# was not wanted', other: '# were not wanted' })}</summary>
          <ul className="rules-learnt">
            {closed.map((i) => (
              <li key={`${i.scope} ${i.key} ${i.level}`}>
                <div>
                  {heading(i)}
                  <div className="quiet">
                    {t`Not wanted on ${fullDay(i.refused!.slice(0, 10))}: ${i.refusedBecause ?? '–'}`}
                  </div>
                </div>
                <Button onClick={() => setTaken(i)}>{t`Look at it and take it`}</Button>
              </li>
            ))}
          </ul>
        </details>
      )}
      {learnt.fans.map((f) => (
        <FanCurve key={f.model} fans={f} currency={learnt.currency} onTake={() => setFans(f)} />
      ))}
      {fans && (
        <EditRule
          rule={ruleFor(known, 'model', fans.model, fans.model)}
          adds={{ fanMonths: Math.round(fans.bestMonths ?? 0) }}
          known={known}
          currency={learnt.currency}
          onClose={() => setFans(null)}
        />
      )}
      {taken && (
        <EditRule
          rule={ruleFor(known, taken.scope, taken.key, taken.name)}
          adds={
            taken.level === 'dust-out'
              ? { dustOutMonths: taken.ruleMonths }
              : { repasteMonths: taken.ruleMonths }
          }
          known={known}
          currency={learnt.currency}
          onClose={() => setTaken(null)}
        />
      )}
      {refused && (
        <AskReason
          title={t`Not for us`}
          text={t`It is not suggested again as long as the record says about the same.`}
          confirm={t`Leave it`}
          busy={refuse.isPending}
          onClose={() => setRefused(null)}
          onReason={(reason) =>
            refuse.mutateAsync({
              scope: refused.scope,
              key: refused.key,
              level: refused.level,
              months: refused.months,
              reason,
            })
          }
        />
      )}
    </section>
  );
}
