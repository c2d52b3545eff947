import { t } from '@lingui/core/macro';
import type { Schemas } from '../api/client';
import { money } from './format';

/** What a level brings, then what it costs; what is nothing is left out. */
const GAINS = [
  ['throttling', t`full clock speed kept`],
  ['crashes', t`crashes avoided`],
  ['ageing', t`slower ageing`],
  ['noise', t`a quieter fan`],
  ['energy', t`electricity of the fan`],
] as const;
const COSTS = [
  ['work', t`the technician’s time`],
  ['material', t`material`],
  ['downtime', t`work lost at the bench and in tests`],
  ['risk', t`risk of breaking something`],
  ['warranty', t`maker’s warranty lost`],
] as const;

/** How the net value of work comes about. */
export function valueBreakdown(value: Schemas['ValueAnswer'], currency: string) {
  const amount = (v: number) => money(v, currency);
  return [
    ...GAINS.filter(([key]) => Math.abs(value[key]) >= 0.05).map(
      ([key, name]) => [name, amount(value[key])] as const,
    ),
    ...COSTS.filter(([key]) => value[key] >= 0.05).map(([key, name]) => [name, amount(-value[key])] as const),
    [t`left`, amount(value.net)],
  ] as const;
}
