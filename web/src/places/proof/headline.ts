import { plural, t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { differenceUnit, kelvin } from '../../words/format';

/** What some jobs have won together, in one sentence. */
export function headline(all: Schemas['WorkWon']): string {
  if (all.jobs === 0) return t`No work is filed in these days.`;
  const jobs = plural(all.jobs, { one: '# job done', other: '# jobs done' });
  if (all.meanKelvin === null || all.expandedKelvin === null) return t`${jobs}, none of them compared yet.`;
  const compared = plural(all.jobs - all.notCompared, { one: 'the one compared', other: 'the # compared' });
  // Its unit stands behind the figure already.
  const within = kelvin(all.expandedKelvin).replace(` ${differenceUnit().unit}`, '');
  return all.meanKelvin >= 0
    ? t`${jobs}: ${compared} won ${kelvin(all.meanKelvin)} ± ${within} in the mean.`
    : t`${jobs}: ${compared} lost ${kelvin(-all.meanKelvin)} ± ${within} in the mean.`;
}
