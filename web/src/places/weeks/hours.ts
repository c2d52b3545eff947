import type { Schemas } from '../../api/client';

export type Curve = Schemas['HoursAnswer'];
type Point = Schemas['HoursPoint'];

/** The point of the curve nearest to so many hours. */
export function at(curve: Curve, hours: number): Point {
  return curve.points.reduce((best, p) =>
    Math.abs(p.hours - hours) < Math.abs(best.hours - hours) ? p : best,
  );
}

/** The hours from which on more change nothing; null where the curve does not get there. */
export function needed(curve: Curve): number | null {
  const last = curve.points[curve.points.length - 1]!;
  const first = curve.points.find((p) => p.passing === last.passing)!;
  return first === last ? null : first.hours;
}

/** A line through all points. */
export function path(points: readonly Point[], place: (point: Point) => readonly [number, number]): string {
  return points
    .map(
      (p, i) =>
        `${i === 0 ? 'M' : 'L'}${place(p)
          .map((v) => v.toFixed(1))
          .join(' ')}`,
    )
    .join('');
}
