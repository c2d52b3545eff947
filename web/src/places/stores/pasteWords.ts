import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';

/** What a paste does beside open contacts. */
export const NATURES: Record<Schemas['PasteNature'], string> = {
  'non-conducting': t`does no harm`,
  capacitive: t`holds charge`,
  conducting: t`conducts`,
  'liquid-metal': t`liquid metal`,
};

export const VISCOSITIES: Record<Schemas['Viscosity'], string> = {
  thin: t`thin`,
  medium: t`medium`,
  thick: t`thick`,
};
