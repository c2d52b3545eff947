import { describe, expect, it } from 'vitest';
import { at, needed, path, type Curve } from './hours';

const curve = (...passing: number[]): Curve => ({
  until: '2027-05-01',
  machines: 9,
  past: 1,
  hoursAWeek: 12,
  points: passing.map((p, i) => ({ hours: i * 2, passing: p, ifEarly: p + 1, ifLate: p })),
});

describe('hours a week against machines past their line', () => {
  it('reads the nearest point', () => {
    expect(at(curve(9, 5, 2, 1), 2.9).passing).toBe(5);
    expect(at(curve(9, 5, 2, 1), 99).passing).toBe(1);
  });

  it('tells from which hours on more change nothing', () => {
    expect(needed(curve(9, 5, 1, 1))).toBe(4);
    // Where the curve still falls at its end, nobody knows.
    expect(needed(curve(9, 5, 2, 1))).toBeNull();
    expect(needed(curve(1, 1, 1))).toBe(0);
  });

  it('is drawn through all its points', () => {
    expect(path(curve(2, 1).points, (p) => [p.hours, p.passing])).toBe('M0.0 2.0L2.0 1.0');
  });
});
