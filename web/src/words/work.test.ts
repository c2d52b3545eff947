import { expect, test } from 'vitest';
import { causeShown, workOf } from './work';

const base = {
  service: 'dust-out',
  minutes: 25,
  urgency: 'next',
  actionDate: null,
  due: null,
  byCalendar: false,
  asOf: '2026-11-27',
} as const;

test('what is advised says by when, and why then', () => {
  expect(workOf({ ...base, urgency: 'now' })).toEqual({ what: 'dust-out', takes: '25 min', when: 'today' });
  expect(workOf({ ...base, actionDate: '2026-11-20' }).when).toBe('past its action line');
  expect(workOf({ ...base, actionDate: '2026-12-14' }).when).toMatch(/^by .*14/);
  // What the calendar alone asks for has the calendar's day, whatever else is known.
  const asked = { ...base, byCalendar: true, due: '2023-08-06' };
  expect(workOf(asked).when).toMatch(/^overdue since .*2023/);
  expect(workOf({ ...asked, actionDate: '2028-09-07' }).when).toMatch(/^overdue since .*2023/);
  // A date of the calendar in years to come has nothing to do with wear that is there now.
  expect(workOf({ ...base, due: '2028-05-12' }).when).toBeNull();
  const unsure = { ...base, needsWorkProbability: 0.35, measure: { minutes: 20 } };
  expect(workOf(unsure)).toEqual({ what: 'measure first', takes: '20 min', when: null });
  // Never measured: the calendar asks, and a run beside it tells most.
  expect(workOf({ ...unsure, needsWorkProbability: null }).what).toBe('dust-out');
  expect(workOf({ ...base, urgency: 'watch', service: null, minutes: null })).toEqual({
    what: null,
    takes: null,
    when: null,
  });
});

test('where the calendar alone asks, no cause of wear stands over it', () => {
  expect(causeShown({ cause: 'dust', byCalendar: true })).toBe('none');
  expect(causeShown({ cause: 'dust', byCalendar: false })).toBe('dust');
  expect(causeShown({ cause: 'room', byCalendar: true })).toBe('room');
});
