import { plural, t } from '@lingui/core/macro';
import { Button, Checkbox } from 'antd';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useImperativeHandle, useRef, type Ref } from 'react';
import type { QueueItem } from '../../api/client';
import { useNarrow } from '../../ui/useNarrow';
import { minutes } from '../../words/format';
import { minutesOf, type Group } from './groups';
import { Row } from './Row';

/** A line of the list: the head of a group, or a machine. */
export type Line = { kind: 'group'; group: Group; open: boolean } | { kind: 'row'; item: QueueItem };

/** What the keys can do with the list. */
export interface ListHandle {
  show: (index: number) => void;
}

const HEAD = 44;

const keyOf = (line: Line): string => (line.kind === 'group' ? `g-${line.group.key}` : line.item.asset);

/** The rows, of which only those in sight are in the page. */
export function List({
  lines,
  asOf,
  current,
  chosen,
  onToggle,
  onPick,
  onChoose,
  ref,
}: {
  lines: readonly Line[];
  asOf: string;
  current: string | undefined;
  chosen: ReadonlySet<string>;
  onToggle: (group: string) => void;
  onPick: (item: QueueItem) => void;
  onChoose: (tag: string) => void;
  ref: Ref<ListHandle>;
}) {
  const scroll = useRef<HTMLDivElement>(null);
  const narrow = useNarrow(760);
  const slim = useNarrow(1180);
  const slimmer = useNarrow(900);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroll.current,
    estimateSize: (i) => (lines[i]?.kind === 'group' ? HEAD : narrow ? 190 : 78),
    // A row keeps its measured height wherever it comes to stand.
    getItemKey: (i) => keyOf(lines[i]!),
    overscan: 8,
  });
  // Before the rows in sight are measured again at the new width.
  useLayoutEffect(() => virtual.measure(), [narrow, slim, slimmer, virtual]);
  useImperativeHandle(ref, () => ({ show: (index) => virtual.scrollToIndex(index, { align: 'auto' }) }));
  const strip = narrow ? 312 : slimmer ? 200 : slim ? 240 : 324;
  return (
    <div className="rounds-scroll" ref={scroll}>
      <div className="rounds-all" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((v) => {
          const line = lines[v.index]!;
          return (
            <div
              key={v.key}
              className="rounds-at"
              data-index={v.index}
              ref={virtual.measureElement}
              style={{ transform: `translateY(${String(v.start)}px)` }}
            >
              {line.kind === 'group' ? (
                <Head group={line.group} open={line.open} onToggle={() => onToggle(line.group.key)} />
              ) : (
                <div className="rounds-entry" aria-current={line.item.asset === current}>
                  <Checkbox
                    className="rounds-choose"
                    aria-label={t`Choose ${line.item.asset}`}
                    checked={chosen.has(line.item.asset)}
                    onChange={() => onChoose(line.item.asset)}
                  />
                  <button
                    type="button"
                    className="rounds-row"
                    aria-current={line.item.asset === current}
                    onClick={() => onPick(line.item)}
                  >
                    <Row item={line.item} asOf={asOf} stripWidth={strip} />
                  </button>
                </div>
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}

function Head({ group, open, onToggle }: { group: Group; open: boolean; onToggle: () => void }) {
  return (
    <div className="rounds-group">
      <Button type="text" aria-expanded={open} onClick={onToggle}>
        {group.title} <span className="quiet">{open ? '' : t`(show)`}</span>
      </Button>
      <span className="quiet">
        {plural(group.items.length, { one: '# machine', other: '# machines' })}
        {minutesOf(group.items) > 0 && !group.calm && ` · ${minutes(minutesOf(group.items))}`}
      </span>
    </div>
  );
}
