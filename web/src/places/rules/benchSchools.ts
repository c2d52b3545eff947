import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';

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
    options: [
      { value: 'least-that-cures', label: t`the least that cures` },
      { value: 'all-while-open', label: t`everything, while it is open` },
    ],
  },
  {
    name: 'warranty',
    label: t`Under warranty`,
    options: [
      { value: 'air-only', label: t`air only, until it ends` },
      { value: 'ask-first', label: t`ask first, and record the answer` },
      { value: 'open-where-allowed', label: t`open where law and maker allow` },
    ],
  },
  {
    name: 'paste',
    label: t`Paste`,
    options: [
      { value: 'by-model', label: t`by the model’s note` },
      { value: 'spread', label: t`spread` },
      { value: 'line', label: t`line` },
      { value: 'dot', label: t`dot` },
      { value: 'cross', label: t`cross` },
    ],
  },
  {
    name: 'pads',
    label: t`Pads`,
    options: [
      { value: 'keep-if-elastic', label: t`keep if elastic` },
      { value: 'always-renew', label: t`always renew` },
      { value: 'putty', label: t`putty` },
    ],
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
