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

/** How a fan was run, in words; what is not known counts as fixed, as it always did. */
export const fanWords = (mode: Schemas['FanMode'] | null | undefined): string =>
  mode === 'auto' ? t`automatic` : t`fixed`;
