import { t } from '@lingui/core/macro';
import type { Schemas } from '../api/client';

/** How far a machine of a campaign is. */
export const STEPS: Record<Schemas['CampaignStep'], string> = {
  waits: t`waits`,
  released: t`to be planned`,
  'at-bench': t`at the bench`,
  done: t`done`,
};
