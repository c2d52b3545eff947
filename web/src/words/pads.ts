import { t } from '@lingui/core/macro';
import type { Schemas } from '../api/client';

/** What to do about a place that takes a pad. */
export const PAD_CODES: Record<Schemas['PadAdviceCode'], string> = {
  take: t`lay it`,
  thinner: t`a thinner one, with a look at its contact`,
  wait: t`wait for the right one, or putty`,
  putty: t`putty`,
};
