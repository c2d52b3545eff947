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
    label: 'How much is opened',
    options: [
      { value: 'least-that-cures', label: 'the least that cures' },
      { value: 'all-while-open', label: 'everything, while it is open' },
    ],
  },
  {
    name: 'warranty',
    label: 'Under warranty',
    options: [
      { value: 'air-only', label: 'air only, until it ends' },
      { value: 'ask-first', label: 'ask first, and record the answer' },
      { value: 'open-where-allowed', label: 'open where law and maker allow' },
    ],
  },
  {
    name: 'paste',
    label: 'Paste',
    options: [
      { value: 'by-model', label: 'by the model’s note' },
      { value: 'spread', label: 'spread' },
      { value: 'line', label: 'line' },
      { value: 'dot', label: 'dot' },
      { value: 'cross', label: 'cross' },
    ],
  },
  {
    name: 'pads',
    label: 'Pads',
    options: [
      { value: 'keep-if-elastic', label: 'keep if elastic' },
      { value: 'always-renew', label: 'always renew' },
      { value: 'putty', label: 'putty' },
    ],
  },
  {
    name: 'alcohol',
    label: 'Alcohol',
    options: [
      { value: 'ninetynine', label: '99 %' },
      { value: 'ninety-plus', label: '90 % or stronger' },
      { value: 'seventy', label: '70 %, with time to dry' },
    ],
  },
  {
    name: 'air',
    label: 'Air for blowing',
    options: [
      { value: 'compressor', label: 'compressor, regulated' },
      { value: 'can', label: 'can' },
      { value: 'blower', label: 'blower' },
      { value: 'brush-only', label: 'none: brush only' },
    ],
  },
  {
    name: 'opening',
    label: 'Screws come out',
    options: [
      { value: 'reverse-of-numbers', label: 'in reverse order of the numbers' },
      { value: 'free', label: 'in any order' },
    ],
  },
];
