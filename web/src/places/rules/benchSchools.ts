import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { AIRS, ALCOHOLS, EXTENTS, OPENINGS, PADS, PASTES, WARRANTIES } from '../../words/rules';

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
    options: ALCOHOLS,
  },
  {
    name: 'air',
    label: t`Air for blowing`,
    options: AIRS,
  },
  {
    name: 'opening',
    label: t`Screws come out`,
    options: OPENINGS,
  },
];
