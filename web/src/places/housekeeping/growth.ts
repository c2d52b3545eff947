import type { Schemas } from '../../api/client';
import { daysBetween } from '../../words/format';

/** So far apart two days must be to say how fast the house grows: a single large import is no pace. */
const LEAST_DAYS = 7;

/** No further back is looked: how it grew in its first weeks says little about now. */
const MOST_DAYS = 90;

/** How fast the house grew lately. */
export interface Growth {
  /** Days between the two figures. */
  days: number;
  bytes: number;
  readings: number;
  /** Months of 30 days until the disk is full at that pace; null where it does not grow. */
  monthsLeft: number | null;
}

/**
 * How much larger the newest day is than the oldest one of the last three months; null while they are too near together.
 * @param days the oldest first
 * @param free room left on the disk, bytes
 */
export function growthOf(days: readonly Schemas['SizeOfDay'][], free: number): Growth | null {
  const last = days.at(-1);
  const first = last && days.find((d) => daysBetween(d.day, last.day) <= MOST_DAYS);
  if (!first) return null;
  const apart = daysBetween(first.day, last.day);
  if (apart < LEAST_DAYS) return null;
  const bytes = last.databaseBytes - first.databaseBytes;
  return {
    days: apart,
    bytes,
    readings: last.readings - first.readings,
    monthsLeft: bytes > 0 ? free / (bytes / apart) / 30 : null,
  };
}
