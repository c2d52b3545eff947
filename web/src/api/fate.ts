import type { ProblemError } from './client';

/**
 * What becomes of an entry that was not taken: it waits and is tried again by itself; everything is held until somebody signs in
 * or looks at the network; or it alone is rejected and shown to its maker, and the next one gets its turn.
 */
export type Fate = 'wait' | 'hold' | 'reject';

/** A server that breaks over one and the same entry this often is broken for that entry alone. */
const MOST_FAULTS = 3;

/** Timeouts, too many calls, gateways and full disks pass by. */
const PASSING = [408, 425, 429, 502, 503, 504, 507];

/** @param faults How often the server has broken over this entry before. */
export function fateOf(error: ProblemError, faults: number): Fate {
  const status = error.problem.status ?? 0;
  if (error.answeredBy === 'nobody' || PASSING.includes(status)) return 'wait';
  if (status === 401) return 'hold';
  if (error.answeredBy === 'something-else')
    return status === 413 ? 'reject' : status >= 500 ? 'wait' : 'hold';
  return status >= 500 && faults + 1 < MOST_FAULTS ? 'wait' : 'reject';
}
