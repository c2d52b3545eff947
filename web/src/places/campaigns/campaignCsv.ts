import type { Schemas } from '../../api/client';
import { csv } from '../../words/csv';

/** The machines of a campaign as a table to take along: kelvins as numbers, days as ISO 8601. */
export const campaignCsv = (c: Schemas['CampaignAnswer']): string =>
  csv(
    [
      'asset',
      'model',
      'zone',
      'pilot',
      'step',
      'planned',
      'job',
      'done',
      'outcome',
      'won_k',
      'expanded_uncertainty_k',
    ],
    c.machines.map((m) => [
      m.tag,
      m.model,
      m.zone,
      m.pilot ? '1' : '0',
      m.step,
      m.planned,
      m.job,
      m.done,
      m.outcome,
      m.wonKelvin,
      m.expandedKelvin,
    ]),
  );
