import { plural, t } from '@lingui/core/macro';
import { clockAt, hundredths, minutes } from '../../words/format';
import { load, type Person, type Plan, type Track } from './board';
import { nameOf } from './jobWords';

type Lines = (readonly [string, string])[];

const sum = (numbers: readonly number[]) => numbers.reduce((all, n) => all + n, 0);

/** What the minutes of work of a plan are made of. */
export function workLines(plan: Plan): Lines {
  const helped = plan.jobs.filter((j) => j.help !== null);
  return [
    [
      plural(plan.jobs.length, { one: '# job', other: '# jobs' }),
      minutes(sum(plan.jobs.map((j) => j.minutes))),
    ],
    ...(helped.length > 0
      ? ([[t`of whoever helps`, minutes(sum(helped.map((j) => j.minutes)))]] as const)
      : []),
    [t`set-ups and ways`, minutes(sum(plan.jobs.map((j) => j.setup + (j.help?.setup ?? 0))))],
    [t`in all`, minutes(plan.workMinutes)],
  ];
}

/** The shifts of a plan, person by person. */
export const shiftLines = (plan: Plan, people: readonly Person[]): Lines => [
  ...people.map(({ code, name }): [string, string] => [
    name,
    minutes(sum(plan.shifts.filter((s) => s.person === code).map((s) => s.to - s.from))),
  ]),
  [t`in all`, minutes(plan.handMinutes)],
];

/** What a plan costs, beside what every plan costs at least. */
export const costLines = (plan: Plan): Lines => [
  [t`later than their day`, hundredths(plan.costOf.late)],
  [t`without a place`, hundredths(plan.costOf.leftOut)],
  [t`set-ups and ways`, hundredths(plan.costOf.setup)],
  [t`moved since the plan before, or changed since then`, hundredths(plan.costOf.moved)],
  [t`in all`, hundredths(plan.cost)],
  [t`every plan at least`, plan.bound === null ? t`not known` : hundredths(plan.bound)],
];

/** The work of one person's day, job by job, and their shift. */
export function loadLines(track: Track): Lines {
  const { work, shift } = load(track);
  return [
    ...track.jobs.map((j): [string, string] => [
      `${clockAt(j.from)} ${nameOf(j)}`,
      j.setup > 0 ? t`${minutes(j.minutes)}, set-up and way ${minutes(j.setup)}` : minutes(j.minutes),
    ]),
    [t`in all`, minutes(work)],
    [t`shift`, minutes(shift)],
  ];
}
