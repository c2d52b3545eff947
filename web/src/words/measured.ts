import type { Schemas } from '../api/client';
import { instant } from './format';

/** When and how a machine was measured last; null when it never was. */
export function measuredWords(
  a: Pick<Schemas['AssessmentAnswer'], 'measuredAt' | 'measuredRun'>,
): string | null {
  if (!a.measuredAt) return null;
  return a.measuredRun
    ? `${instant(a.measuredAt)}, run of job ${String(a.measuredRun.jobId)}`
    : `${instant(a.measuredAt)}, by its readings`;
}
