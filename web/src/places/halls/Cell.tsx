import { t } from '@lingui/core/macro';
import { Link } from 'react-router';
import type { QueueItem } from '../../api/client';
import { heatStep } from '../../theme/heat';
import { say } from '../../words/message';
import { kelvin } from '../../words/format';
import { word } from '../../words/word';

/** Below this a machine is quiet, K. */
export const NOTABLE = 3;

/** What a machine has lost, for its cell; null where that is not known. */
export const lostOf = (item: QueueItem): number | null => item.driftKelvin;

/** Whether a machine has something that one should know of when walking by. */
export const hasSomething = (item: QueueItem): boolean =>
  (item.driftKelvin ?? 0) >= NOTABLE ||
  ['now', 'next'].includes(item.urgency) ||
  item.job !== null ||
  item.silence !== null;

/** One machine in its place: quiet while it has lost nothing, glowing by the kelvins it has lost. */
export function Cell({ item }: { item: QueueItem }) {
  const step = heatStep(lostOf(item) ?? 0);
  const says = [item.asset, item.model, say(item.reasonMessage)].join('. ');
  return (
    <Link
      to={`/machines/${encodeURIComponent(item.asset)}`}
      className={step ? 'hall-cell lost' : 'hall-cell'}
      style={step ? { background: step.colour, color: step.text } : undefined}
      title={says}
    >
      {item.asset}
      <span className="hall-says">{wordOf(item)}</span>
    </Link>
  );
}

function wordOf(item: QueueItem): string {
  if (item.job) return item.job.state === 'open' ? t`bench` : t`to prove`;
  if (item.driftKelvin === null) return item.measuredAt ? t`too few` : t`no data`;
  if (item.driftKelvin >= NOTABLE) return `+${kelvin(item.driftKelvin)}`;
  if (item.silence) return t`silent`;
  return item.urgency === 'now' || item.urgency === 'next' ? word(item.urgency) : '';
}
