import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { EXTENTS, PADS, PASTES, WARRANTIES } from '../../words/rules';

type Bench = NonNullable<Schemas['PolicyDto']['bench']>;

interface School {
  name: keyof Bench;
  label: string;
  options: readonly { value: string; label: string }[];
}

/** The ways at the bench between which houses differ; the first of each is the default. */
export const BENCH_SCHOOLS: readonly School[] = [
  {
    name: 'extent',
    label: t`How much is opened`,
    options: EXTENTS,
  },
  {
    name: 'warranty',
    label: t`Under warranty`,
    options: WARRANTIES,
  },
  {
    name: 'paste',
    label: t`Paste`,
    options: PASTES,
  },
  {
    name: 'pads',
    label: t`Pads`,
    options: PADS,
  },
  {
    name: 'alcohol',
    label: t`Alcohol`,
    options: [
      { value: 'ninetynine', label: '99 %' },
      { value: 'ninety-plus', label: t`90 % or stronger` },
      { value: 'seventy', label: t`70 %, with time to dry` },
    ],
  },
  {
    name: 'air',
    label: t`Air for blowing`,
    options: [
      { value: 'compressor', label: t`compressor, regulated` },
      { value: 'can', label: t`can` },
      { value: 'blower', label: t`blower` },
      { value: 'brush-only', label: t`none: brush only` },
    ],
  },
  {
    name: 'opening',
    label: t`Screws come out`,
    options: [
      { value: 'reverse-of-numbers', label: t`highest number first` },
      { value: 'free', label: t`in any order` },
    ],
  },
];
