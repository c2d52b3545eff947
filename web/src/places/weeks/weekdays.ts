import { plural, t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { clockAt } from '../../words/format';
import { minuteOf } from './board';

type Times = Schemas['WeeklyTimeDto'];
type Weekday = NonNullable<Times['day']>;

/** The days of a working week first. */
export const WEEKDAYS: readonly Weekday[] = [
  'monday',
  'tuesday',
  'wednesday',
  'thursday',
  'friday',
  'saturday',
  'sunday',
];

/** A weekday as the reader writes it; 1 January 2024 was a Monday. */
export const weekdayName = (day: Weekday, style: 'long' | 'short' = 'long'): string =>
  new Date(2024, 0, 1 + WEEKDAYS.indexOf(day)).toLocaleDateString(undefined, { weekday: style });

/** Times of a week in one line: days with the same hours stand together. */
export function weekWords(times: readonly Times[]): string {
  const byHours = new Map<string, Weekday[]>();
  for (const { day, from, to } of times)
    if (day) {
      const hours = `${clockAt(minuteOf(from))} – ${clockAt(minuteOf(to))}`;
      byHours.set(hours, [...(byHours.get(hours) ?? []), day]);
    }
  return [...byHours].map(([hours, days]) => `${daysWords(days)} ${hours}`).join('; ');
}

function daysWords(days: readonly Weekday[]): string {
  const at = days.map((d) => WEEKDAYS.indexOf(d));
  const isRun = at.length > 2 && at.every((d, i) => i === 0 || d === at[i - 1]! + 1);
  return isRun
    ? t`${weekdayName(days[0]!, 'short')} to ${weekdayName(days[days.length - 1]!, 'short')}`
    : days.map((d) => weekdayName(d, 'short')).join(', ');
}

/** Hours of a week in all. */
export function hoursAWeek(times: readonly Times[]): string {
  const all = times.reduce((sum, { from, to }) => {
    const length = minuteOf(to) - minuteOf(from);
    return sum + (length > 0 ? length : length + 1440);
  }, 0);
  return plural(Math.round(all / 60), { one: '# hour a week', other: '# hours a week' });
}
