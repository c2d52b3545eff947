import { plural, t } from '@lingui/core/macro';
import { Button } from 'antd';
import { Link, useParams } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { useQueue, useStaff, useWeeks, useWrite } from '../../api/queries';
import { useBring } from '../../api/stores';
import { OffTheShelf } from '../../ui/OffTheShelf';
import { Refusal } from '../../ui/Refusal';
import { SheetHead } from '../../ui/paper/SheetHead';
import '../../ui/paper/paper.css';
import '../../ui/work.css';
import './weeks.css';
import { Unready } from '../../ui/Unready';
import { NotFound } from '../../ui/NotFound';
import { usePageTitle } from '../../ui/usePageTitle';
import { clockAt, fullDay, minutes, weekday } from '../../words/format';
import { say } from '../../words/message';
import { BRING } from '../../words/bring';
import { levelName } from '../../words/work';
import { BenchLink } from './BenchLink';
import { nameOf, togetherWords, workWords } from './jobWords';
import { jobsOn, type PlannedJob } from './board';

/** One person's day on a sheet: in walking order, with what to bring, each job one tap from the bench. */
export function DaySheet() {
  const { person: code = '', day = '' } = useParams();
  const weeks = useWeeks();
  const staff = useStaff();
  const queue = useQueue();
  const person = staff.data?.people.find((p) => p.code === code);
  const shelf = useBring(
    (weeks.data?.plan ? jobsOn(weeks.data.plan, code, day) : [])
      .filter((j) => j.kind === 'service' && j.helps !== true)
      .flatMap((j) => j.steps.map((step) => step.asset)),
  );
  usePageTitle(person ? t`Day sheet: ${person.name}` : t`Day sheet`);
  if (!weeks.data || !staff.data) return <Unready of={[weeks, staff]} title={t`Day sheet`} />;
  const jobs = weeks.data.plan ? jobsOn(weeks.data.plan, code, day) : [];
  if (!person || !/^\d{4}-\d\d-\d\d$/.test(day)) return <NotFound what={t`day sheet`} />;
  // Who helps brings nothing for it: who does it has it with them.
  const own = jobs.filter((j) => j.helps !== true);
  const levels = [...new Set(own.flatMap((j) => j.steps.flatMap((s) => (s.level ? [s.level] : []))))];
  const bring = [...new Set(levels.flatMap((level) => BRING[level] ?? []))];
  const runs = own.some((j) => j.kind !== 'visit');
  return (
    <div className="sheet">
      <SheetHead
        place={`/weeks/sheet/${code}/${day}`}
        backTo="/weeks"
        back={t`Back to the weeks`}
        code={t`QR code of this sheet`}
        title={t`${person.name}, ${weekday(day)}`}
      >
        <p>
          {jobs.length === 0
            ? t`Nothing is planned for this day.`
            : t`${plural(jobs.length, { one: '# job', other: '# jobs' })}, ${minutes(jobs.reduce((sum, j) => sum + j.minutes + j.setup, 0))} with set-up. Plan of ${fullDay(weeks.data.plan!.madeAt.slice(0, 10))}.`}
        </p>
        <p className="small">
          {t`Local codes, the maker’s instructions and licensed practice come first. Stop and ask when in doubt.`}
        </p>
      </SheetHead>
      {weeks.data.plan && weeks.data.today === day && jobs.length > 0 && (
        <RunningLate seen={weeks.data.plan.id} person={code} />
      )}
      {own.length > 0 && (
        <section className="sheet-stage">
          <h2>{t`What to bring`}</h2>
          <ul className="bring-list">
            {[...(runs ? [t`thermometer for the room’s air`] : []), ...bring].map((what) => (
              <li key={what}>
                <span className="sheet-box small-box" /> {what}
              </li>
            ))}
          </ul>
        </section>
      )}
      {shelf.data?.jobs.some((j) => j.takes.length + j.missing.length + j.ready.length > 0) && (
        <section className="sheet-stage">
          <h2>{t`Off the shelf`}</h2>
          <OffTheShelf bring={shelf.data} />
        </section>
      )}
      {jobs.map((job, i) => (
        <section key={job.id} className="sheet-stage weeks-sheet-job">
          {jobs[i - 1]?.zone !== job.zone && <h2>{job.zoneName}</h2>}
          <p className="no-gap">
            <span className="sheet-box" /> <strong className="figures">{clockAt(job.from)}</strong>{' '}
            <strong>{nameOf(job)}</strong> · {workWords(job)} · {minutes(job.minutes)}
            {job.help && ` · ${togetherWords(job, staff.data.people)}`}
          </p>
          <Steps job={job} items={queue.data?.items ?? []} />
        </section>
      ))}
    </div>
  );
}

/** How late one may say to be, minutes. */
const LATE = [15, 30, 60];

/** Moves what is left of today's shift on, when asked to. */
function RunningLate({ seen, person }: { seen: number; person: string }) {
  const late = useWrite((by: number) =>
    unwrap(api.POST('/api/v1/weeks/late', { body: { seen, person, minutes: by } })),
  );
  return (
    <div className="no-print">
      <p className="no-gap">{t`Running late? What is not begun yet begins later:`}</p>
      <div className="button-row">
        {LATE.map((by) => (
          <Button key={by} loading={late.isPending} onClick={() => late.mutate(by)}>
            {t`${minutes(by)} later`}
          </Button>
        ))}
      </div>
      {late.isError && <Refusal error={late.error} />}
      {late.data && (
        <p role="status">
          {t`${plural(late.data.moved, { one: '# job begins', other: '# jobs begin' })} later.`}{' '}
          {late.data.lost > 0 &&
            t`${plural(late.data.lost, { one: '# job has', other: '# jobs have' })} no place any more: see the weeks.`}
        </p>
      )}
    </div>
  );
}

function Steps({ job, items }: { job: PlannedJob; items: readonly Schemas['QueueItem'][] }) {
  return job.steps
    .filter((step) => step.asset !== '')
    .map((step) => {
      const item = items.find((i) => i.asset === step.asset);
      return (
        <div key={step.asset} className="weeks-sheet-step">
          {job.steps.length > 1 && (
            <p className="no-gap">
              <span className="figures">{step.asset}</span> {step.level && levelName(step.level)}
            </p>
          )}
          {item && (
            <p className="small no-gap">
              {item.model}. {say(item.reasonMessage)}
            </p>
          )}
          <p className="no-gap no-print">
            <BenchLink step={step} job={job} />{' '}
            <Link className="alone" to={`/machines/${encodeURIComponent(step.asset)}`}>{t`The machine`}</Link>
          </p>
        </div>
      );
    });
}
