import type { QueueItem } from '../../api/client';
import { csv } from '../../words/csv';

/** Rows of Rounds as a table to take along: dates as ISO 8601, temperatures in K and °C. */
export const rowsCsv = (items: readonly QueueItem[]): string =>
  csv(
    [
      'rank',
      'tag',
      'kind',
      'model',
      'site',
      'zone',
      'urgency',
      'cause',
      'lost_k',
      'lost_uncertainty_k',
      'service',
      'minutes',
      'action_date',
      'due',
      'now_c',
      'limit_c',
      'reason',
    ],
    items.map((i) => [
      i.rank,
      i.asset,
      i.kind,
      i.model,
      i.site,
      i.zoneName,
      i.urgency,
      i.cause,
      i.driftKelvin,
      i.driftUncertaintyKelvin,
      i.service,
      i.minutes,
      i.actionDate,
      i.due,
      i.strip?.now ?? null,
      i.strip?.limit ?? null,
      i.reason,
    ]),
  );
