import { plural, t } from '@lingui/core/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { Refusal } from '../../ui/Refusal';
import { fullDay, minutes, tenths } from '../../words/format';
import { word } from '../../words/word';
import { levelName } from '../../words/work';

/** Somebody who types is not asked at each key, ms. */
const PAUSE = 500;

/** Machines named before all are asked for. */
const FIRST = 10;

const URGENCIES = ['now', 'next', 'soon', 'watch', 'fine', 'unknown'] as const;

/** What was typed last, once there was a pause. */
function usePaused<T>(value: T): T {
  const [paused, setPaused] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setPaused(value), PAUSE);
    return () => clearTimeout(timer);
  }, [value]);
  return paused;
}

/** What rules would do to the queue and to the work of the next quarter, before they are kept. */
export function Preview({ rules }: { rules: string | null }) {
  const asked = usePaused(rules);
  const preview = useQuery({
    queryKey: ['rules-preview', asked],
    queryFn: () =>
      unwrap(api.POST('/api/v1/rules/preview', { body: JSON.parse(asked!) as Schemas['RulesToTry'] })),
    enabled: asked !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });
  return (
    <section
      aria-live="polite"
      aria-label={t`What this would change`}
      aria-busy={asked !== rules || preview.isFetching}
    >
      <h2>{t`What this would change`}</h2>
      {rules === null ? (
        <p className="quiet">{t`Nothing is changed yet.`}</p>
      ) : preview.isError ? (
        <Refusal error={preview.error} />
      ) : preview.data ? (
        <Told of={preview.data} />
      ) : (
        <p className="quiet">{t`Being worked out …`}</p>
      )}
    </section>
  );
}

function Told({ of }: { of: Schemas['RulePreviewAnswer'] }) {
  const [all, setAll] = useState(false);
  const { before, after } = of;
  const moved = URGENCIES.filter((u) => (before.machines[u] ?? 0) !== (after.machines[u] ?? 0));
  if (of.changed === 0)
    return (
      <p>
        {t`Nothing: the same order and the same dates for all ${plural(of.machines, { one: '# machine', other: '# machines' })}.`}
      </p>
    );
  return (
    <>
      <p>
        {t`${of.changed} of ${plural(of.machines, { one: '# machine', other: '# machines' })} would change.`}
      </p>
      <dl className="rules-facts">
        <div className="rules-fact">
          <dt>{t`Work of the next quarter`}</dt>
          <dd className="figures">{t`${tenths(before.quarterHours)} h → ${tenths(after.quarterHours)} h`}</dd>
        </div>
        <div className="rules-fact">
          <dt>{t`Jobs in it`}</dt>
          <dd className="figures">{`${String(before.quarterJobs)} → ${String(after.quarterJobs)}`}</dd>
        </div>
        {moved.map((u) => (
          <div key={u} className="rules-fact">
            <dt>{word(u)}</dt>
            <dd className="figures">
              {`${String(before.machines[u] ?? 0)} → ${String(after.machines[u] ?? 0)}`}
            </dd>
          </div>
        ))}
      </dl>
      <ul className="rules-changed">
        {(all ? of.rows : of.rows.slice(0, FIRST)).map((row) => (
          <li key={row.asset}>
            <Link to={`/machines/${encodeURIComponent(row.asset)}`} className="figures">
              {row.asset}
            </Link>{' '}
            <span className="quiet small">{row.zoneName}</span>
            <div className="small">{difference(row.before, row.after)}</div>
          </li>
        ))}
      </ul>
      {of.rows.length > FIRST && !all && (
        <Button type="link" onClick={() => setAll(true)}>
          {t`Show all ${of.rows.length}`}
        </Button>
      )}
      {all && of.changed > of.rows.length && (
        <p className="quiet small">{t`These are the first ${of.rows.length} of ${of.changed}.`}</p>
      )}
    </>
  );
}

type Under = Schemas['UnderRules'];

/** What differs for one machine, in words. */
function difference(before: Under, after: Under): string {
  const work = (u: Under) =>
    u.service && u.minutes ? t`${levelName(u.service)}, ${minutes(u.minutes)}` : t`no work`;
  const dueWord = (level: Under['dueLevel']) => (level ? levelName(level) : t`none`);
  const dueDay = (u: Under) => (u.due ? fullDay(u.due) : t`none`);
  const line = (u: Under) => (u.actionDate ? fullDay(u.actionDate) : t`none`);
  const parts: string[] = [];
  if (before.urgency !== after.urgency) parts.push(`${word(before.urgency)} → ${word(after.urgency)}`);
  if (before.service !== after.service) parts.push(`${work(before)} → ${work(after)}`);
  if (before.dueLevel !== after.dueLevel)
    parts.push(
      t`the calendar asks for: ${dueWord(before.dueLevel)} ${dueDay(before)} → ${dueWord(after.dueLevel)} ${dueDay(after)}`,
    );
  else if (before.due !== after.due)
    parts.push(t`${dueWord(after.dueLevel)} is due: ${dueDay(before)} → ${dueDay(after)}`);
  if (before.actionDate !== after.actionDate) parts.push(t`action line: ${line(before)} → ${line(after)}`);
  return parts.join('; ');
}
