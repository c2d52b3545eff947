import { plural, t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { tenths } from '../../words/format';

/** What work has won besides kelvins, in one line; empty where nothing of it was measured. */
export function sidesWords(sides: Schemas['SidesWon']): string {
  const on = (jobs: number) => plural(jobs, { one: '# job', other: '# jobs' });
  const parts = [
    sides.meanDecibel !== null &&
      (sides.meanDecibel <= 0
        ? t`${tenths(-sides.meanDecibel)} dB quieter in the mean of ${on(sides.noiseJobs)}`
        : t`${tenths(sides.meanDecibel)} dB louder in the mean of ${on(sides.noiseJobs)}`),
    sides.meanPerformance !== null &&
      (sides.meanPerformance >= 0
        ? t`${tenths(sides.meanPerformance * 100)} % faster in the mean of ${on(sides.performanceJobs)} whose clock or score moved`
        : t`${tenths(-sides.meanPerformance * 100)} % slower in the mean of ${on(sides.performanceJobs)} whose clock or score moved`),
    sides.endedThrottling > 0 &&
      t`${plural(sides.endedThrottling, { one: '# machine', other: '# machines' })} no longer throttling`,
    sides.endedFailing > 0 &&
      t`${plural(sides.endedFailing, { one: '# machine', other: '# machines' })} no longer failing`,
  ].filter((part) => part !== false);
  return parts.length === 0 ? '' : t`Besides: ${parts.join('; ')}.`;
}
