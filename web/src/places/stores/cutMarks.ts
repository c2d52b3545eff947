import type { Schemas } from '../../api/client';

type Cut = Schemas['SheetToCutAnswer']['cuts'][number];

/** Where along a cut its number may stand: at its end best, else at its beginning, else between. */
const PLACES = [1, 0, 0.75, 0.5, 0.25];

/** The middle of each cut's number, such that none lies upon another as far as there is room. */
export function cutMarks(cuts: readonly Cut[], radius: number): { x: number; y: number }[] {
  const marks: { x: number; y: number }[] = [];
  for (const c of cuts) {
    const places = PLACES.map((at) => ({
      x: c.fromXMm + at * (c.toXMm - c.fromXMm),
      y: c.fromYMm + at * (c.toYMm - c.fromYMm),
    }));
    const free = places.find((p) => marks.every((m) => Math.hypot(m.x - p.x, m.y - p.y) >= 2 * radius));
    marks.push(free ?? places[0]!);
  }
  return marks;
}
