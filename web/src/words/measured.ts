import { t } from '@lingui/core/macro';
import type { Schemas } from '../api/client';
import { instant } from './format';

/** When and how a machine was measured last; null when it never was. */
export function measuredWords(
  a: Pick<Schemas['AssessmentAnswer'], 'measuredAt' | 'measuredRun'>,
): string | null {
  if (!a.measuredAt) return null;
  return a.measuredRun
    ? t`${instant(a.measuredAt)}, run of job ${String(a.measuredRun.jobId)}`
    : t`${instant(a.measuredAt)}, by its readings`;
}
