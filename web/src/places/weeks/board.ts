import type { Schemas } from '../../api/client';

export type Plan = Schemas['PlanInForce'];
export type PlannedJob = Schemas['PlannedJob'];
export type Person = Schemas['PersonAnswer'];
export type ZoneTimes = Schemas['ZoneTimesAnswer'];

/** Where a job stands, or is being moved to: whose day, and the minute by their clock. */
export interface Spot {
  person: string;
  day: string;
  from: number;
}

/** What a day of the plan shows. */
export interface DayBoard {
  day: string;
  tracks: readonly Track[];
  /** Whether anybody has a shift or a job: else the day is passed over in a line. */
  isWorked: boolean;
  /** Zones that are closed all day. */
  closed: readonly { name: string; reason: string }[];
}

/** A job in somebody's day: their own, or one that they help with. */
export type TrackJob = PlannedJob & { helps?: boolean };

/** What somebody does on a day, in order; what they help with stands by their own clock. */
export const jobsOn = (plan: Plan, person: string, day: string): TrackJob[] =>
  plan.jobs
    .map((j): TrackJob => {
      if (j.help?.person !== person) return j;
      return { ...j, day: j.help.day, from: j.help.from, setup: j.help.setup, helps: true };
    })
    .filter((j) => (j.helps === true || j.person === person) && j.day === day)
    .sort((a, b) => a.from - b.from);

/** One person's day. */
export interface Track {
  person: Person;
  shifts: readonly Schemas['ShiftAnswer'][];
  jobs: readonly TrackJob[];
  away: string | null;
}

/** A day so many days after another, both as YYYY-MM-DD. */
export function daysLater(day: string, days: number): string {
  return new Date(Date.parse(day) + days * 86_400_000).toISOString().slice(0, 10);
}

/** The days of a plan, each with everybody's track. */
export function boards(plan: Plan, people: readonly Person[], zones: readonly ZoneTimes[]): DayBoard[] {
  return Array.from({ length: plan.days }, (_, i) => {
    const day = daysLater(plan.start, i);
    const tracks = people.map((person): Track => {
      const absence = person.absences.find((a) => a.from <= day && day <= a.to);
      return {
        person,
        shifts: plan.shifts.filter((s) => s.person === person.code && s.day === day),
        jobs: jobsOn(plan, person.code, day),
        away: absence ? absence.reason : null,
      };
    });
    return {
      day,
      tracks,
      closed: zones.flatMap(({ name, closed }) =>
        closed.filter((c) => c.from <= day && day <= c.to).map(({ reason }) => ({ name, reason })),
      ),
      isWorked: tracks.some((track) => track.shifts.length > 0 || track.jobs.length > 0),
    };
  });
}

/** Minutes of work, set-up included, and of shifts of one person's day. */
export function load(track: Track): { work: number; shift: number } {
  return {
    work: track.jobs.reduce((sum, j) => sum + j.minutes + j.setup, 0),
    shift: track.shifts.reduce((sum, s) => sum + s.to - s.from, 0),
  };
}

/** The stretches of a day in which machines of a zone may be down, as minutes; null for all of it. */
export function windowsOn(zone: ZoneTimes | undefined, day: string): { from: number; to: number }[] | null {
  if (!zone || zone.open.length === 0) return null;
  if (zone.closed.some((c) => c.from <= day && day <= c.to)) return [];
  const name = new Date(`${day}T00:00Z`).toLocaleDateString('en', { weekday: 'long', timeZone: 'UTC' });
  return zone.open
    .filter((time) => time.day === name.toLowerCase())
    .map((time) => {
      const [from, to] = [minuteOf(time.from), minuteOf(time.to)];
      return { from, to: to > from ? to : to + 1440 };
    });
}

/** Minutes from midnight of a time such as 08:30. */
export function minuteOf(text: string | null): number {
  const [h = 0, m = 0] = (text ?? '').split(':').map(Number);
  return h * 60 + m;
}

/** The hours that the board shows, in whole hours around all shifts and jobs, as minutes. */
export function hoursShown(plan: Plan): { from: number; to: number } {
  const all = [
    ...plan.shifts.map((s) => [s.from, s.to] as const),
    ...plan.jobs.map((j) => [j.from - j.setup, j.from + j.minutes] as const),
  ];
  if (all.length === 0) return { from: 8 * 60, to: 16 * 60 };
  return {
    from: Math.floor(Math.min(...all.map(([from]) => from)) / 60) * 60,
    to: Math.ceil(Math.max(...all.map(([, to]) => to)) / 60) * 60,
  };
}

/** A job shorter than this share of the hours shown is too narrow to hit: it stands in the upper or lower half of the track. */
const NARROW = 0.06;

/** Which half of the track a job stands in: short ones that follow one another take turns. */
export function halves(
  jobs: readonly PlannedJob[],
  hours: { from: number; to: number },
): ReadonlyMap<string, 'upper' | 'lower'> {
  const found = new Map<string, 'upper' | 'lower'>();
  let last: 'upper' | 'lower' = 'lower';
  for (const job of [...jobs].sort((a, b) => a.from - b.from))
    if (job.minutes < NARROW * (hours.to - hours.from)) {
      last = last === 'lower' ? 'upper' : 'lower';
      found.set(job.id, last);
    }
  return found;
}

/** Moves by keys and by dragging snap to this many minutes. */
export const STEP = 5;

/** The job moved by a key; null where the key moves nothing. */
export function moved(spot: Spot, key: string, plan: Plan, people: readonly Person[]): Spot | null {
  const at = people.findIndex((p) => p.code === spot.person);
  const other = (step: number) => people[at + step]?.code;
  const day = daysLater(spot.day, key === 'PageDown' ? 1 : -1);
  switch (key) {
    case 'ArrowLeft':
      return { ...spot, from: Math.max(0, spot.from - STEP) };
    case 'ArrowRight':
      return { ...spot, from: spot.from + STEP };
    case 'ArrowUp':
    case 'ArrowDown': {
      const person = other(key === 'ArrowUp' ? -1 : 1);
      return person === undefined ? null : { ...spot, person };
    }
    case 'PageUp':
    case 'PageDown':
      return day >= plan.start && day < daysLater(plan.start, plan.days) ? { ...spot, day } : null;
    default:
      return null;
  }
}

/** What the work of a job can win back in all, K; null where nothing is known. */
export function kelvinOf(job: { steps: readonly Schemas['WorkStep'][] }): number | null {
  const known = job.steps.map((s) => s.kelvin).filter((k) => k !== null);
  return known.length > 0 ? Math.max(...known) : null;
}

/** The machines of a job. */
export const tagsOf = (job: { steps: readonly Schemas['WorkStep'][] }): string[] =>
  job.steps.map((s) => s.asset).filter((tag) => tag !== '');
