import { csv } from '../../words/csv';
import { tagsOf, type Person, type Plan } from './board';
import { nameOf } from './jobWords';

const clock = (minute: number) =>
  `${String(Math.floor(minute / 60) % 24).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;

/** A plan as a table to take along: dates as ISO 8601, times by the person's clock, what is left out at the end. */
export const planCsv = (plan: Plan, people: readonly Person[]): string =>
  csv(
    [
      'day',
      'begins',
      'ends',
      'person',
      'with',
      'zone',
      'job',
      'kind',
      'assets',
      'levels',
      'minutes',
      'due_by',
      'left_out',
    ],
    [
      ...plan.jobs.map((j) => [
        j.day,
        clock(j.from),
        clock(j.from + j.minutes),
        nameIn(people, j.person),
        j.help && nameIn(people, j.help.person),
        j.zoneName,
        nameOf(j),
        j.kind,
        tagsOf(j).join(' '),
        levels(j),
        j.minutes,
        j.dueBy,
        null,
      ]),
      ...plan.leftOut.map((j) => [
        null,
        null,
        null,
        null,
        null,
        j.zoneName,
        nameOf(j),
        j.kind,
        tagsOf(j).join(' '),
        levels(j),
        j.minutes,
        j.dueBy,
        j.code,
      ]),
    ],
  );

const nameIn = (people: readonly Person[], code: string): string =>
  people.find((p) => p.code === code)?.name ?? code;

const levels = (job: { steps: Plan['jobs'][number]['steps'] }): string =>
  job.steps
    .map((s) => s.level)
    .filter((level) => level !== null)
    .join(' ');
