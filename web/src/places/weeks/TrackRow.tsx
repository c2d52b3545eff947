import { t } from '@lingui/core/macro';
import { useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { heat } from '../../theme/heat';
import { CauseMark } from '../../ui/marks/CauseMark';
import { clockAt, minutes, weekday } from '../../words/format';
import { say } from '../../words/message';
import {
  halves,
  kelvinOf,
  moved,
  STEP,
  type Person,
  type Plan,
  type PlannedJob,
  type Track,
  type TrackJob,
} from './board';
import { nameOf, togetherWords, workWords } from './jobWords';
import type { useDraft } from './useDraft';

/** A pointer that moved less than this many pixels picks; farther, it drags. */
const DRAG = 5;

/**
 * One person's day: shifts, jobs in their places, and the job that is held over it.
 * @param windows When the machines of the job picked may be down; null where always, or none is picked.
 */
export function TrackRow({
  track,
  day,
  hours,
  windows,
  plan,
  people,
  picked,
  onPick,
  move,
}: {
  track: Track;
  day: string;
  hours: { from: number; to: number };
  windows: readonly { from: number; to: number }[] | null;
  plan: Plan;
  people: readonly Person[];
  picked: string | null;
  onPick: (id: string) => void;
  move: ReturnType<typeof useDraft>;
}) {
  const { draft } = move;
  const span = hours.to - hours.from;
  const place = (from: number, length: number) => ({
    insetInlineStart: `${String(((from - hours.from) / span) * 100)}%`,
    inlineSize: `${String((length / span) * 100)}%`,
  });
  const held = draft?.day === day && draft.person === track.person.code ? draft : null;
  const half = halves(track.jobs, hours);
  const heldJob =
    held && (plan.jobs.find((j) => j.id === held.id) ?? plan.leftOut.find((j) => j.id === held.id));
  return (
    <div
      className={track.away === null ? 'weeks-track' : 'weeks-track weeks-away'}
      data-person={track.person.code}
      data-day={day}
    >
      {track.away !== null && (
        <span className="small quiet weeks-away-words">
          {track.away === '' ? t`away` : t`away: ${track.away}`}
        </span>
      )}
      {track.shifts.map((s) => (
        <span key={s.from} className="weeks-shift" style={place(s.from, s.to - s.from)} />
      ))}
      {windows?.map((w) => {
        const [from, to] = [Math.max(w.from, hours.from), Math.min(w.to, hours.to)];
        return to > from && <span key={w.from} className="weeks-window" style={place(from, to - from)} />;
      })}
      {track.jobs.map((job) => (
        <Block
          key={job.id}
          job={job}
          half={half.get(job.id)}
          style={place(job.from, job.minutes)}
          setup={job.setup > 0 ? place(job.from - job.setup, job.setup) : null}
          isPicked={picked === job.id}
          isHeld={draft?.id === job.id}
          onPick={() => onPick(job.id)}
          plan={plan}
          people={people}
          hours={hours}
          move={move}
        />
      ))}
      {held && heldJob && (
        <span
          className={held.conflict ? 'weeks-held weeks-cannot' : 'weeks-held'}
          style={place(held.from, held.minutes)}
        >
          <span className="figures small">{nameOf(heldJob)}</span>
        </span>
      )}
    </div>
  );
}

function Block({
  job,
  half,
  style,
  setup,
  isPicked,
  isHeld,
  onPick,
  plan,
  people,
  hours,
  move,
}: {
  job: TrackJob;
  half: 'upper' | 'lower' | undefined;
  style: { insetInlineStart: string; inlineSize: string };
  setup: { insetInlineStart: string; inlineSize: string } | null;
  isPicked: boolean;
  isHeld: boolean;
  onPick: () => void;
  plan: Plan;
  people: readonly Person[];
  hours: { from: number; to: number };
  move: ReturnType<typeof useDraft>;
}) {
  const grip = useRef<{ x: number; minutes: number } | null>(null);
  // Who helps goes where the job goes: it is moved in the row of who does it.
  const own = job.helps === true ? plan.jobs.find((j) => j.id === job.id)! : job;
  const start = { id: job.id, minutes: job.minutes, person: own.person, day: own.day, from: own.from };
  const held = isHeld && move.draft ? move.draft : null;

  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Escape' && held) {
      event.stopPropagation();
      move.hold(null);
      return;
    }
    if (event.key === 'Enter' && held) {
      event.preventDefault();
      void move.putDown();
      return;
    }
    const next = moved(held ?? start, event.key, plan, people);
    if (!next) return;
    event.preventDefault();
    move.hold({ ...start, ...next });
  };
  const onPointerMove = (event: PointerEvent<HTMLButtonElement>) => {
    if (!grip.current) return;
    if (!held && Math.abs(event.clientX - grip.current.x) < DRAG && isOver(event, job)) return;
    const over = trackUnder(event);
    const bar = over?.getBoundingClientRect();
    if (!over || !bar) return;
    const at = hours.from + ((event.clientX - bar.left) / bar.width) * (hours.to - hours.from);
    move.hold({
      ...start,
      person: over.dataset['person']!,
      day: over.dataset['day']!,
      from: Math.max(0, Math.round((at - grip.current.minutes) / STEP) * STEP),
    });
  };
  return (
    <>
      {setup && <span className="weeks-setup" style={setup} aria-hidden />}
      <button
        type="button"
        className={[
          'weeks-job',
          isPicked && 'weeks-picked',
          half && `weeks-${half}`,
          isHeld && 'weeks-left',
          job.conflict && 'weeks-cannot',
          job.helps === true && 'weeks-helps',
        ]
          .filter(Boolean)
          .join(' ')}
        style={{ ...style, borderInlineStartColor: edge(job) }}
        aria-pressed={isPicked}
        aria-label={wordsOf(job, people)}
        onClick={() => !held && onPick()}
        onKeyDown={onKeyDown}
        onPointerDown={(event) => {
          if (job.helps === true) return;
          const bar = event.currentTarget.parentElement!.getBoundingClientRect();
          const at = hours.from + ((event.clientX - bar.left) / bar.width) * (hours.to - hours.from);
          grip.current = { x: event.clientX, minutes: at - job.from };
          event.currentTarget.setPointerCapture(event.pointerId);
        }}
        onPointerMove={onPointerMove}
        onPointerUp={() => {
          grip.current = null;
          if (held) void move.putDown();
        }}
        onPointerCancel={() => {
          grip.current = null;
          move.hold(null);
        }}
      >
        <span className="weeks-marks">
          <Mark job={job} />
          <Beside job={job} />
        </span>
        <span className="figures small">{nameOf(job)}</span>
      </button>
    </>
  );
}

/** The mark of what is wrong, or of what kind of visit it is. */
export function Mark({ job }: { job: PlannedJob }) {
  const cause = job.steps.find((s) => s.cause !== 'none')?.cause;
  if (cause) return <CauseMark cause={cause} />;
  const kind = KINDS[job.kind];
  return (
    kind && (
      <svg viewBox="0 0 18 18" fill="none" stroke="currentColor" strokeWidth={1.6} aria-hidden>
        {kind}
      </svg>
    )
  );
}

/** Marks beside it: work of a campaign, one of a row of many; work for two. */
export function Beside({ job }: { job: PlannedJob }) {
  return (
    <>
      {job.campaign !== null && (
        <svg viewBox="0 0 18 18" fill="none" stroke="currentColor" strokeWidth={1.6} aria-hidden>
          <title>{t`Campaign: ${job.campaign}`}</title>
          <path d="M4 4v10M9 4v10M14 4v10" />
        </svg>
      )}
      {job.help !== null && (
        <svg viewBox="0 0 18 18" fill="none" stroke="currentColor" strokeWidth={1.6} aria-hidden>
          <title>{t`It takes two`}</title>
          <circle cx="4.500" cy="9" r="2.800" />
          <circle cx="13.500" cy="9" r="2.800" />
        </svg>
      )}
    </>
  );
}

/** Marks of what has no cause: a run's curve, a glass to look through, a clock, a hand's stroke. */
const KINDS: Partial<Record<PlannedJob['kind'], ReactNode>> = {
  'after-run': <path d="M2 15c3 0 3-9 7-9h7" />,
  'deciding-run': <path d="M2 15c3 0 3-9 7-9h7M13 12v4" />,
  'second-look': (
    <>
      <circle cx="8" cy="8" r="4.5" />
      <path d="m11.500 11.500 4 4" />
    </>
  ),
  // Its interval asks for it.
  service: (
    <>
      <circle cx="9" cy="9" r="6.5" />
      <path d="M9 5v4h3" />
    </>
  ),
  visit: <path d="M3 15 14 4M11 3.500l3.500 3.500" />,
};

/** The heat that the work takes away stands at the job's edge. */
export function edge(job: { steps: PlannedJob['steps'] }): string {
  return heat(kelvinOf(job) ?? 0);
}

/** A job in one sentence, for those who do not see the board. */
function wordsOf(job: TrackJob, people: readonly Person[]): string {
  const where = t`${nameOf(job)}, ${workWords(job)}, ${weekday(job.day)} ${clockAt(job.from)}, ${minutes(job.minutes)}, ${job.zoneName}`;
  const campaign = job.campaign === null ? '' : `. ${t`Campaign: ${job.campaign}`}`;
  const two = job.help === null ? '' : `. ${togetherWords(job, people)}`;
  const conflict = job.conflict ? `. ${say(job.conflict)}` : '';
  return where + campaign + two + conflict;
}

function trackUnder(event: PointerEvent): HTMLElement | null {
  return (
    document
      .elementsFromPoint(event.clientX, event.clientY)
      .map((e) => e.closest<HTMLElement>('.weeks-track'))
      .find((e) => e !== null) ?? null
  );
}

function isOver(event: PointerEvent, job: PlannedJob): boolean {
  const track = trackUnder(event);
  return track?.dataset['person'] === job.person && track.dataset['day'] === job.day;
}
