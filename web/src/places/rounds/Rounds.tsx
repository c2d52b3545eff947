import { Button, Input, Segmented, Spin } from 'antd';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { QueueItem, Schemas } from '../../api/client';
import { useQueue } from '../../api/queries';
import { clock, count, fullDay, minutes } from '../../words/format';
import { useKeys } from '../../ui/keys';
import { Refusal } from '../../ui/Refusal';
import { useNarrow } from '../../ui/useNarrow';
import { usePageTitle } from '../../ui/usePageTitle';
import { Filters } from './Filters';
import {
  group,
  headline,
  matches,
  minutesOf,
  remarks,
  type Filter,
  type Group,
  type Grouping,
} from './groups';
import './rounds.css';
import { Row } from './Row';
import { SetAside } from '../../ui/SetAside';
import { SidePanel } from './SidePanel';
import { useStartJob } from '../../ui/useStartJob';

const TYPING_REST = 150;

type Line = { kind: 'group'; group: Group; open: boolean } | { kind: 'row'; item: QueueItem };

/**
 * The start page: which machines next, what to do to each, why and by when.
 * @param empty What is shown while there are no machines.
 */
export function Rounds({ empty }: { empty: ReactNode }) {
  usePageTitle('Rounds');
  const queue = useQueue();
  if (queue.isPending)
    return (
      <div className="page" aria-busy="true">
        <h1>Reading the fleet…</h1>
        <Spin />
      </div>
    );
  if (queue.isError)
    return (
      <div className="page">
        <h1>The queue cannot be shown.</h1>
        <Refusal error={queue.error} retry={() => void queue.refetch()} />
      </div>
    );
  if (queue.data.total === 0 && !queue.data.pending) return empty;
  return <Queue queue={queue.data} />;
}

function Queue({ queue }: { queue: Schemas['QueueAnswer'] }) {
  const [params, setParams] = useSearchParams();
  const [selected, setSelected] = useState<string | null>(null);
  const [toggled, setToggled] = useState<ReadonlySet<string>>(new Set());
  const [aside, setAside] = useState<QueueItem | null>(null);
  const scroll = useRef<HTMLDivElement>(null);
  const search = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const startJob = useStartJob();

  const by = params.get('by');
  const grouping: Grouping = by === 'zone' || by === 'warranty' ? by : 'urgency';
  const filter: Filter = {
    text: params.get('q') ?? '',
    site: params.get('site'),
    zone: params.get('zone'),
    kind: params.get('kind'),
    urgency: params.get('urgency'),
    only: params.get('only'),
  };
  // From the address as it is now: two changes in one breath would otherwise each begin from what was drawn last.
  const set = (name: string, value: string | null) => {
    const next = new URLSearchParams(window.location.search);
    if (value) next.set(name, value);
    else next.delete(name);
    setParams(next, { replace: true });
  };
  // What is typed shows at once; the address follows when the fingers rest.
  const [typed, setTyped] = useState(filter.text);
  useEffect(() => {
    if (typed === filter.text) return;
    const rest = setTimeout(() => set('q', typed || null), TYPING_REST);
    return () => clearTimeout(rest);
  });
  const filtering = Object.values(filter).some(Boolean);
  const key = JSON.stringify(filter);
  const lines = useMemo(() => {
    const groups = group(
      queue.items.filter((item) => matches(item, JSON.parse(key) as Filter)),
      grouping,
    );
    return groups.flatMap((g): Line[] => {
      const open = (!g.calm || filtering) !== toggled.has(g.key);
      return [
        { kind: 'group', group: g, open },
        ...(open ? g.items.map((item): Line => ({ kind: 'row', item })) : []),
      ];
    });
  }, [queue.items, key, grouping, toggled, filtering]);

  const narrow = useNarrow(760);
  const slim = useNarrow(1180);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroll.current,
    estimateSize: (i) => (lines[i]?.kind === 'group' ? 44 : narrow ? 164 : 74),
    overscan: 8,
  });
  useEffect(() => virtual.measure(), [narrow, lines, virtual]);

  const rows = lines.flatMap((line, i) => (line.kind === 'row' ? [{ item: line.item, i }] : []));
  const current = rows.find((r) => r.item.asset === selected) ?? rows[0];
  const walk = (step: number) => {
    const at = rows.findIndex((r) => r.item.asset === current?.item.asset);
    const next = rows[Math.min(rows.length - 1, Math.max(0, at + (selected === null ? 0 : step)))];
    if (!next) return;
    setSelected(next.item.asset);
    virtual.scrollToIndex(next.i, { align: 'auto' });
  };
  useKeys({
    '/': () => search.current?.focus(),
    j: () => walk(1),
    k: () => walk(-1),
    ArrowDown: () => walk(1),
    ArrowUp: () => walk(-1),
    Enter: () => {
      if (current) void navigate(`/machines/${encodeURIComponent(current.item.asset)}`);
    },
    s: () => {
      if (current?.item.service) startJob.mutate({ asset: current.item.asset, level: current.item.service });
    },
    a: () => {
      if (current) setAside(current.item);
    },
    z: () => set('by', grouping === 'zone' ? null : 'zone'),
  });

  return (
    <div className="rounds">
      <section className="rounds-list" aria-label="Machines, most pressing first">
        <div className="rounds-top">
          <span>
            {queue.judgedAt
              ? `judged ${clock(queue.judgedAt)} as of ${fullDay(queue.asOf)}`
              : 'not judged yet'}
            {queue.pending && (
              <span role="status">
                {' '}
                · judging newer data
                {queue.progress && queue.progress.of > 0
                  ? `, zone ${String(queue.progress.done)} of ${String(queue.progress.of)}`
                  : ''}{' '}
                …
              </span>
            )}
          </span>
          <span className="rounds-keys">
            <kbd>/</kbd> find <kbd>j</kbd> <kbd>k</kbd> walk <kbd>Enter</kbd> open <kbd>?</kbd> keys
          </span>
        </div>
        <h1>{headline(queue)}</h1>
        <p className="quiet rounds-remarks">
          {remarks(queue).map((remark) => (
            <span key={remark.text}>
              {remark.text}{' '}
              {remark.only && (
                <Button
                  type="link"
                  size="small"
                  aria-pressed={filter.only === remark.only}
                  onClick={() => set('only', filter.only === remark.only ? null : remark.only!)}
                >
                  {filter.only === remark.only ? 'show all' : 'show'}
                </Button>
              )}{' '}
            </span>
          ))}
        </p>
        <div className="rounds-filters">
          <Input
            ref={(input) => {
              search.current = input?.input ?? null;
            }}
            aria-label="Find a machine"
            placeholder="Find a machine"
            allowClear
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            onPressEnter={(e) => e.currentTarget.blur()}
            style={{ width: 176 }}
          />
          <Filters items={queue.items} filter={filter} onChange={set} />
          <Segmented
            aria-label="Group by"
            value={grouping}
            onChange={(v) => set('by', v === 'urgency' ? null : v)}
            options={[
              { value: 'urgency', label: 'by urgency' },
              { value: 'zone', label: 'by zone' },
              { value: 'warranty', label: 'by end of warranty' },
            ]}
          />
        </div>
        <div className="rounds-scroll" ref={scroll}>
          {lines.length === 0 && (
            <p style={{ marginTop: 24 }}>
              {grouping === 'warranty' && !filtering
                ? 'No machine that needs work is kept shut by its warranty.'
                : 'No machine matches.'}{' '}
              <Button
                onClick={() => {
                  setTyped('');
                  setParams({}, { replace: true });
                }}
              >
                Clear the filters
              </Button>
            </p>
          )}
          <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
            {virtual.getVirtualItems().map((v) => {
              const line = lines[v.index]!;
              const style = {
                position: 'absolute' as const,
                top: 0,
                left: 0,
                right: 0,
                transform: `translateY(${String(v.start)}px)`,
              };
              return line.kind === 'group' ? (
                <div key={`g-${line.group.key}`} style={style}>
                  <div className="rounds-group">
                    <button
                      type="button"
                      aria-expanded={line.open}
                      onClick={() =>
                        setToggled((before) => {
                          const next = new Set(before);
                          if (!next.delete(line.group.key)) next.add(line.group.key);
                          return next;
                        })
                      }
                    >
                      {line.group.title} <span className="quiet">{line.open ? '' : '(show)'}</span>
                    </button>
                    <span className="quiet" style={{ fontWeight: 400 }}>
                      {count(line.group.items.length, 'machine')}
                      {minutesOf(line.group.items) > 0 &&
                        !line.group.calm &&
                        ` · ${minutes(minutesOf(line.group.items))}`}
                    </span>
                  </div>
                </div>
              ) : (
                <div key={line.item.asset} style={style}>
                  <button
                    type="button"
                    className="rounds-row"
                    aria-current={line.item.asset === current?.item.asset}
                    onClick={() => {
                      if (narrow || line.item.asset === selected)
                        void navigate(`/machines/${encodeURIComponent(line.item.asset)}`);
                      else setSelected(line.item.asset);
                    }}
                  >
                    <Row item={line.item} stripWidth={narrow ? 320 : slim ? 250 : 340} />
                  </button>
                </div>
              );
            })}
          </div>
        </div>
      </section>
      <aside className="rounds-side" aria-label="The machine picked">
        {current ? (
          <SidePanel item={current.item} onSetAside={() => setAside(current.item)} startJob={startJob} />
        ) : (
          <p className="quiet">Pick a machine to see its heat path.</p>
        )}
      </aside>
      {aside && <SetAside item={aside} onClose={() => setAside(null)} />}
    </div>
  );
}
