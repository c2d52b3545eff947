import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Button, Modal, Progress } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { useStaff, useWeeks, useWrite } from '../../api/queries';
import { FigureBreakdown } from '../../ui/FigureBreakdown';
import { Refusal } from '../../ui/Refusal';
import { useNarrow } from '../../ui/useNarrow';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { clock, fullDay, minutes, tenths } from '../../words/format';
import { download } from '../../words/csv';
import { say } from '../../words/message';
import { AddVisit } from './AddVisit';
import { boards, daysLater, type Person, type Plan } from './board';
import { Day } from './Day';
import { DayLines } from './DayLines';
import { JobPanel } from './JobPanel';
import { LeftOut } from './LeftOut';
import { MakePlan } from './MakePlan';
import { CalendarFeeds } from './CalendarFeeds';
import { costLines, shiftLines, workLines } from './making';
import { planCsv } from './planCsv';
import { useDraft } from './useDraft';
import './weeks.css';

/** Who does what when: the plan in force, read downward by days. */
export function Weeks() {
  usePageTitle(t`Weeks`);
  const weeks = useWeeks();
  const staff = useStaff();
  if (!weeks.data || !staff.data)
    return <Unready of={[weeks, staff]} title={t`Weeks`} failed={t`The plan cannot be shown.`} />;
  const { plan, run, failure, today } = weeks.data;
  if (staff.data.people.length === 0) return <NobodyYet />;
  return (
    <div className="weeks">
      <Making run={run} failure={failure} />
      {plan ? (
        <InForce plan={plan} staff={staff.data} today={today} busy={run !== null} />
      ) : (
        <div className="weeks-main">
          <h1>{t`No weeks are planned yet.`}</h1>
          <p className="text-width">
            {t`The plan takes what Rounds advises, the after-runs that are missing and what you add, and puts it into the shifts of your people.`}
          </p>
          <div className="button-row">
            <MakePlan today={today} busy={run !== null} words={t`Plan two weeks`} />
            <Link to="/weeks/people">
              <Button>{t`People and times`}</Button>
            </Link>
            <Link to="/weeks/campaigns">
              <Button>{t`Campaigns`}</Button>
            </Link>
          </div>
        </div>
      )}
    </div>
  );
}

/** What stands here before anybody works in the house. */
function NobodyYet() {
  return (
    <div className="page">
      <h1>{t`Who works on your machines?`}</h1>
      <p className="text-width">
        {t`A plan needs people and their hours. Say who they are, when they work and what they may open; then the weeks are planned from what Rounds advises.`}
      </p>
      <Link to="/weeks/people">
        <Button type="primary">{t`Add people`}</Button>
      </Link>
    </div>
  );
}

/** A plan that is being made, and why the last one was not. */
function Making({ run, failure }: { run: Schemas['PlanRun'] | null; failure: Schemas['Message'] | null }) {
  const stop = useWrite(() => unwrap(api.POST('/api/v1/weeks/stop')));
  if (failure && !run) return <p role="alert">{say(failure)}</p>;
  if (!run) return null;
  return (
    <div className="weeks-making" role="status">
      <span>
        {run.wanted === 0
          ? t`Planning: reading what is to be done …`
          : t`Planning: ${run.placed} of ${run.wanted} jobs have a place …`}
      </span>
      <Progress
        percent={Math.round((run.passed / Math.max(run.seconds, 0.1)) * 100)}
        showInfo={false}
        size="small"
        aria-label={t`Time for planning that has passed`}
      />
      <Button onClick={() => stop.mutate(undefined)} disabled={run.placed === 0}>
        {t`Stop, and take the best so far`}
      </Button>
    </div>
  );
}

function InForce({
  plan,
  staff: { people, zones },
  today,
  busy,
}: {
  plan: Plan;
  staff: Schemas['StaffAnswer'];
  today: string;
  busy: boolean;
}) {
  const narrow = useNarrow(760);
  // There the side stands below all days: what was picked comes to the reader instead.
  const below = useNarrow(1020);
  const [picked, setPicked] = useState<string | null>(null);
  const [adding, setAdding] = useState(false);
  const [calendar, setCalendar] = useState(false);
  const move = useDraft(plan.id);
  const takeBack = useWrite(() => unwrap(api.POST('/api/v1/weeks/take-back', { body: { seen: plan.id } })));
  const days = boards(plan, people, zones);
  const job = plan.jobs.find((j) => j.id === picked);
  const conflicts = plan.jobs.filter((j) => j.conflict !== null && j.bench === null);
  const close = () => {
    move.hold(null);
    setPicked(null);
  };
  const panel = job && (
    <JobPanel key={job.id} job={job} plan={plan} people={people} move={move} onClose={close} />
  );
  const all = plan.jobs.length + plan.leftOut.length;
  return (
    <>
      <section className="weeks-main" aria-label={t`The plan, day by day`}>
        <p className="quiet weeks-top">
          <span>
            {plan.planner === 'hand'
              ? t`changed by hand ${clock(plan.madeAt)}: ${say(plan.says)}`
              : t`planned ${fullDay(plan.madeAt.slice(0, 10))}, ${clock(plan.madeAt)}`}
            {plan.gap !== null && (
              <>
                {' · '}
                <FigureBreakdown title={t`What the plan costs, in days of weight`} lines={costLines(plan)}>
                  {gapWords(plan.gap)}
                </FigureBreakdown>
              </>
            )}
            {plan.planner === 'greedy' &&
              t` · made without the solver: nothing says how far it is from the best plan`}
          </span>
          <span className="unbroken">
            {fullDay(plan.start)} – {fullDay(daysLater(plan.start, plan.days - 1))}
          </span>
        </p>
        <h1>
          {all === 0
            ? t`Nothing is to be done in these weeks.`
            : t`${plural(all, { one: `${String(plan.jobs.length)} of # job has a place`, other: `${String(plan.jobs.length)} of # jobs have a place` })}.`}
        </h1>
        <p className="quiet">
          <Trans>
            <FigureBreakdown title={t`Work in this plan`} lines={workLines(plan)}>
              {minutes(plan.workMinutes)}
            </FigureBreakdown>{' '}
            of work, set-up included, in{' '}
            <FigureBreakdown title={t`Shifts of these weeks`} lines={shiftLines(plan, people)}>
              {minutes(plan.handMinutes)}
            </FigureBreakdown>{' '}
            of shifts.
          </Trans>{' '}
          <Lateness plan={plan} />
        </p>
        {plan.moved.length > 0 && <Moves plan={plan} people={people} />}
        {conflicts.length > 0 && (
          <p role="alert">
            <strong>
              {plural(conflicts.length, {
                one: '# job cannot stand where it is any more',
                other: '# jobs cannot stand where they are any more',
              })}
            </strong>
            {t`: plan again to move them, or move them by hand.`}
          </p>
        )}
        <div className="button-row before-more">
          <MakePlan today={today} busy={busy} words={t`Plan again`} days={plan.days} />
          <Button onClick={() => setAdding(true)}>{t`Add a visit`}</Button>
          <Link to="/weeks/people">
            <Button>{t`People and times`}</Button>
          </Link>
          <Link to="/weeks/campaigns">
            <Button>{t`Campaigns`}</Button>
          </Link>
          <Button
            disabled={!plan.canTakeBack || busy}
            loading={takeBack.isPending}
            onClick={() => takeBack.mutate(undefined)}
          >
            {t`Take back the last change`}
          </Button>
          <Button onClick={() => download(`weeks-${plan.start}.csv`, planCsv(plan, people))}>
            {t`Export CSV`}
          </Button>
          <Button onClick={() => setCalendar(true)}>{t`Calendar`}</Button>
        </div>
        {takeBack.isError && <Refusal error={takeBack.error} />}
        {move.place.isError && <Refusal error={move.place.error} />}
        {days.map((day) =>
          narrow ? (
            <DayLines key={day.day} board={day} people={people} onPick={setPicked} picked={picked} />
          ) : (
            <Day
              key={day.day}
              board={day}
              plan={plan}
              people={people}
              zone={zones.find((z) => z.zone === job?.zone)}
              picked={picked}
              onPick={setPicked}
              move={move}
            />
          ),
        )}
      </section>
      <aside className="weeks-side" aria-label={panel && !below ? t`The job picked` : t`Not in these weeks`}>
        {panel && !below ? panel : <LeftOut plan={plan} people={people} move={move} />}
      </aside>
      {panel && below && (
        <Modal open footer={null} closable={false} onCancel={close} title={null}>
          {panel}
        </Modal>
      )}
      {calendar && <CalendarFeeds people={people} onClose={() => setCalendar(false)} />}
      {adding && <AddVisit plan={plan} onClose={() => setAdding(false)} />}
    </>
  );
}

/** How far the plan may be from the best one, as far as it is known. */
function gapWords(gap: number): string {
  if (gap < 1e-6) return t`no plan is better by these rules`;
  return gap < 0.001
    ? t`costs less than ${tenths(0.1)} % more than the best plan`
    : t`costs at most ${tenths(gap * 100)} % more than the best plan`;
}

function Lateness({ plan }: { plan: Plan }) {
  const late = plan.jobs.filter((j) => j.late).length;
  const locked = plan.jobs.filter((j) => j.locked).length;
  return (
    <>
      {late === 0
        ? t`Nothing that could be in time is late.`
        : t`${plural(late, { one: '# job is', other: '# jobs are' })} later than the day by which it should be done.`}
      {locked > 0 &&
        ` ${t`${plural(locked, { one: '# job stays', other: '# jobs stay' })} where somebody put it.`}`}
    </>
  );
}

/** What stands elsewhere than in the plan before, and why. */
function Moves({ plan, people }: { plan: Plan; people: readonly Person[] }) {
  const nameOf = (code: string) => people.find((p) => p.code === code)?.name ?? code;
  return (
    <details className="before-more">
      <summary>
        {plural(plan.moved.length, {
          one: '# job has another day or person than in the plan before',
          other: '# jobs have another day or person than in the plan before',
        })}
      </summary>
      <ul className="bullets">
        {plan.moved.map((m) => (
          <li key={m.id}>
            <span className="figures">{m.title}</span>
            {t`: was ${nameOf(m.wasPerson)}, ${fullDay(m.wasDay)}.`} {say(m.why)}
          </li>
        ))}
      </ul>
    </details>
  );
}
