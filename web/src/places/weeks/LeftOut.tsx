import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { Link } from 'react-router';
import { minutes } from '../../words/format';
import { say } from '../../words/message';
import { tagsOf, type Person, type Plan } from './board';
import { nameOf, workWords } from './jobWords';
import { GiveSpot } from './GiveSpot';
import { HoursCurve } from './HoursCurve';
import { useState } from 'react';
import type { useDraft } from './useDraft';

/** What has no place, and why. */
export function LeftOut({
  plan,
  people,
  move,
}: {
  plan: Plan;
  people: readonly Person[];
  move: ReturnType<typeof useDraft>;
}) {
  const [placing, setPlacing] = useState<string | null>(null);
  return (
    <>
      <h2 className="weeks-side-head">{t`Not in these weeks`}</h2>
      {plan.leftOut.length === 0 && (
        <p className="quiet apart-small">{t`All that is to be done has its place.`}</p>
      )}
      {plan.leftOut.map((job) => (
        <div key={job.id} className="weeks-out ruled">
          <p className="no-gap">
            {tagsOf(job).length === 1 ? (
              <Link to={`/machines/${encodeURIComponent(tagsOf(job)[0]!)}`} className="figures heavy">
                {nameOf(job)}
              </Link>
            ) : (
              <span className="heavy">{nameOf(job)}</span>
            )}{' '}
            {workWords(job)} · {minutes(job.minutes)}
          </p>
          <p className="small quiet no-gap">{say(job.reason)}</p>
          {placing === job.id ? (
            <GiveSpot
              job={job}
              spot={{ person: people[0]!.code, day: plan.start, from: 8 * 60 }}
              people={people}
              plan={plan}
              move={move}
              onDone={() => setPlacing(null)}
            />
          ) : (
            <Button size="small" type="text" className="flush" onClick={() => setPlacing(job.id)}>
              {t`Give it a place`}
            </Button>
          )}
        </div>
      ))}
      <HoursCurve />
      <p className="small quiet apart">{t`Pick a job to see what it is and to move it.`}</p>
    </>
  );
}
