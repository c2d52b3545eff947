import { t } from '@lingui/core/macro';
import type { ServiceLevel } from '../api/client';

const DUST = [t`brush and dry air`, t`something that holds the fan still`, t`dust mask`];
const OPEN = [t`screwdriver bits and tray`, t`wrist strap and mat`];
const JOINT = [...OPEN, t`wipes and cleaning alcohol`, t`paste`];

/** What work of a level takes along. Common practice, no source. */
export const BRING: Partial<Record<ServiceLevel, readonly string[]>> = {
  inspect: [t`torch`],
  'blow-out': DUST,
  'dust-out': [...DUST, ...OPEN],
  'fan-swap': [...OPEN, t`the new fan`],
  repaste: [...DUST, ...JOINT],
  repad: [...DUST, ...JOINT, t`pads and calliper`],
  'other-paste': JOINT,
  'other-pads': [...JOINT, t`pads and calliper`],
  'cooler-swap': [...JOINT, t`the other cooler`],
  'add-on-fan': [...OPEN, t`the add-on fan`],
  stand: [t`the stand`],
  filter: [t`the dust filter`],
};
