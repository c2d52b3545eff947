import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, unwrap } from '../../api/client';
import { useQueue, useWrite } from '../../api/queries';
import { Refusal } from '../../ui/Refusal';
import { CAUSE_WORDS } from '../../ui/marks/CauseMark';
import { clockAt, fullDay, kelvin, minutes, weekday } from '../../words/format';
import { say } from '../../words/message';
import { levelName } from '../../words/work';
import { type Person, type Plan, type PlannedJob } from './board';
import { GiveSpot } from './GiveSpot';
import { nameOf, togetherWords, workWords } from './jobWords';
import { BenchLink } from './BenchLink';
import type { useDraft } from './useDraft';
import { WaitFor } from './WaitFor';

/** One job of the plan: what is done, why, by when, and what may be changed about it. */
export function JobPanel({
  job,
  plan,
  people,
  move,
  onClose,
}: {
  job: PlannedJob;
  plan: Plan;
  people: readonly Person[];
  move: ReturnType<typeof useDraft>;
  onClose: () => void;
}) {
  const queue = useQueue();
  const [placing, setPlacing] = useState(false);
  const [waiting, setWaiting] = useState<string | null>(null);
  const lock = useWrite((locked: boolean) =>
    unwrap(
      api.POST('/api/v1/weeks/jobs/{id}/lock', {
        params: { path: { id: job.id } },
        body: { seen: plan.id, locked },
      }),
    ),
  );
  const leaveOut = useWrite(() =>
    unwrap(
      api.POST('/api/v1/weeks/jobs/{id}/leave-out', {
        params: { path: { id: job.id } },
        body: { seen: plan.id },
      }),
    ),
  );
  const held = move.draft?.id === job.id ? move.draft : null;
  const error = lock.error ?? leaveOut.error;
  const person = people.find((p) => p.code === job.person)?.name ?? job.person;
  return (
    <>
      <div className="weeks-side-head">
        <h2 className="figures">{nameOf(job)}</h2>
        <Button type="text" size="small" onClick={onClose}>{t`Close`}</Button>
      </div>
      <p className="apart-small">
        {t`${person}, ${weekday(job.day)}, ${clockAt(job.from)} – ${clockAt(job.from + job.minutes)}`}
        <span className="block small quiet">
          {job.zoneName}
          {job.setup > 0 && t` · ${minutes(job.setup)} of set-up and way before it`}
          {job.help && <span className="block">{togetherWords(job, people)}</span>}
        </span>
      </p>
      {job.conflict && <p role="alert">{t`It cannot stand there any more: ${say(job.conflict)}`}</p>}
      {job.kind !== 'service' && <p>{workWords(job)}</p>}
      {job.campaign !== null && (
        <p>
          <Link to="/weeks/campaigns">{t`Campaign: ${job.campaign}`}</Link>
        </p>
      )}
      {job.steps
        .filter((step) => step.asset !== '')
        .map((step) => {
          const item = queue.data?.items.find((i) => i.asset === step.asset);
          return (
            <div key={step.asset} className="weeks-out ruled">
              <p className="no-gap">
                <Link to={`/machines/${encodeURIComponent(step.asset)}`} className="figures heavy">
                  {step.asset}
                </Link>{' '}
                {step.level && levelName(step.level)} · {minutes(step.minutes)}
                {step.cause !== 'none' && ` · ${CAUSE_WORDS[step.cause]}`}
                {step.kelvin !== null && t` · ${kelvin(step.kelvin)} to win back`}
              </p>
              {item && <p className="small quiet no-gap">{say(item.reasonMessage)}</p>}
              <BenchLink step={step} job={job} />{' '}
              {job.kind === 'service' && job.bench === null && (
                <Button type="link" size="small" onClick={() => setWaiting(step.asset)}>
                  {t`It waits for parts`}
                </Button>
              )}
            </div>
          );
        })}
      <p className="apart-small">
        {job.dueBy ? t`Due by ${fullDay(job.dueBy)}.` : t`It has no day by which it is due.`}{' '}
        {job.late && t`Here it is late.`}{' '}
        {job.locked ? t`It stays here when the plan is made again.` : t`A new plan may move it.`}
      </p>
      {held && !placing && (
        <p role="status">
          {t`Held over ${people.find((p) => p.code === held.person)?.name ?? ''}, ${weekday(held.day)} ${clockAt(held.from)}.`}{' '}
          {held.conflict === undefined
            ? t`Whether it may stand there is being asked …`
            : held.conflict
              ? say(held.conflict)
              : t`Enter puts it there, Esc gives up.`}
        </p>
      )}
      {error && <Refusal error={error} />}
      {placing ? (
        <GiveSpot
          job={job}
          spot={job}
          people={people}
          plan={plan}
          move={move}
          onDone={() => setPlacing(false)}
        />
      ) : (
        <div className="button-row">
          <Button onClick={() => setPlacing(true)}>{t`Move`}</Button>
          <Button loading={lock.isPending} onClick={() => lock.mutate(!job.locked)}>
            {job.locked ? t`Let it move` : t`Keep it here`}
          </Button>
          <Button
            loading={leaveOut.isPending}
            onClick={() => void leaveOut.mutateAsync(undefined).then(onClose, () => undefined)}
          >
            {t`Leave it out`}
          </Button>
        </div>
      )}
      {waiting !== null && <WaitFor tag={waiting} onClose={() => setWaiting(null)} />}
      <p className="small quiet apart">
        {t`On the board: drag a job, or move it by the arrow keys and Page Up or Down for the day; Enter puts it there, Esc gives up.`}
      </p>
    </>
  );
}
