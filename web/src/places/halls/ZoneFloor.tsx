import { t } from '@lingui/core/macro';
import { useMemo } from 'react';
import type { QueueItem } from '../../api/client';
import { walkingOrder } from '../../words/walking';
import { Cell } from './Cell';

/** Cards in one host stand together, in a frame of its own. */
function byHost(items: readonly QueueItem[]): { host: string | null; items: QueueItem[] }[] {
  const groups: { host: string | null; items: QueueItem[] }[] = [];
  const hosts = new Map<string, QueueItem[]>();
  for (const item of items) {
    const known = item.host ? hosts.get(item.host) : undefined;
    if (known) known.push(item);
    else {
      const group = { host: item.host, items: [item] };
      if (item.host) hosts.set(item.host, group.items);
      groups.push(group);
    }
  }
  return groups;
}

/** The machines of a zone where they stand; those whose place nobody has drawn follow by their tags. */
export function ZoneFloor({ items }: { items: readonly QueueItem[] }) {
  const ordered = useMemo(() => walkingOrder(items), [items]);
  const placed = ordered.filter((i) => i.place !== null);
  const loose = ordered.filter((i) => i.place === null);
  return (
    <>
      {placed.length > 0 && (
        <div className="hall-plan">
          {placed.map((item) => (
            <div
              key={item.asset}
              style={{ gridColumn: item.place!.column + 1, gridRow: item.place!.row + 1 }}
              className={item.host ? 'hall-host' : undefined}
            >
              <Cell item={item} />
            </div>
          ))}
        </div>
      )}
      <div className="hall-machines">
        {byHost(loose).map((group) =>
          group.items.length > 1 ? (
            <div key={group.host} className="hall-host" role="group" aria-label={t`In ${group.host ?? ''}`}>
              {group.items.map((item) => (
                <Cell key={item.asset} item={item} />
              ))}
            </div>
          ) : (
            <Cell key={group.items[0]!.asset} item={group.items[0]!} />
          ),
        )}
      </div>
    </>
  );
}
