/** A stretch of time, milliseconds since 1970. */
export type Span = readonly [from: number, until: number];

const DAY = 86_400_000;

/** Nothing shorter is looked at, ms: the points stand days apart. */
const SHORTEST = 20 * DAY;

/** A stretch within another, not shorter than can be read. */
export function within([from, until]: Span, all: Span): Span {
  const length = Math.min(all[1] - all[0], Math.max(SHORTEST, until - from));
  const begin = Math.min(Math.max(all[0], (from + until - length) / 2), all[1] - length);
  return [begin, begin + length];
}

/** Half of a stretch, about an instant. */
export function closer([from, until]: Span, about: number, all: Span): Span {
  const half = (until - from) / 4;
  return within([about - half, about + half], all);
}

/** The last days up to a day, for the choices beside a chart. */
export const lastDays = (days: number, until: number, all: Span): Span =>
  within([until - days * DAY, until + (days * DAY) / 4], all);
