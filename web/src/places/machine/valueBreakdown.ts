import type { Schemas } from '../../api/client';
import { money } from '../../words/format';

type Level = Schemas['LevelAnswer'];

/** What a level brings, then what it costs; what is nothing is left out. */
const GAINS = [
  ['throttling', 'full clock speed kept'],
  ['crashes', 'crashes avoided'],
  ['ageing', 'slower ageing'],
  ['noise', 'a quieter fan'],
  ['energy', 'electricity of the fan'],
] as const;
const COSTS = [
  ['work', 'the technician’s time'],
  ['material', 'material'],
  ['downtime', 'work lost at the bench and in tests'],
  ['risk', 'risk of breaking something'],
  ['warranty', 'maker’s warranty lost'],
] as const;

/** How the net value of a level comes about. */
export function valueBreakdown({ value }: Level, currency: string) {
  const amount = (v: number) => money(v, currency);
  return [
    ...GAINS.filter(([key]) => Math.abs(value[key]) >= 0.05).map(
      ([key, name]) => [name, amount(value[key])] as const,
    ),
    ...COSTS.filter(([key]) => value[key] >= 0.05).map(([key, name]) => [name, amount(-value[key])] as const),
    ['left', amount(value.net)],
  ] as const;
}
