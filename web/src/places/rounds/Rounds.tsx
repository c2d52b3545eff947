import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { lazy, Suspense, useDeferredValue, useMemo, useRef, useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import type { QueueItem, Schemas, ServiceLevel } from '../../api/client';
import { useQueue } from '../../api/queries';
import { useKeys } from '../../ui/keys';
import { useNarrow } from '../../ui/useNarrow';
import { usePageTitle } from '../../ui/usePageTitle';
import { useStartJob } from '../../ui/useStartJob';
import { clock, fullDay } from '../../words/format';
import { group, headline, inOrder, matches, remarks, type Filter } from './groups';
import { List, type Line, type ListHandle } from './List';
import './rounds.css';
import { SidePanel } from './SidePanel';
import { useView } from './useView';
import { Unready } from '../../ui/Unready';

/** The rows come first, what chooses among them right after. */
const Toolbar = lazy(async () => ({ default: (await import('./Toolbar')).Toolbar }));

/** What is not on the first screen comes when it is asked for. */
const SetAside = lazy(async () => ({ default: (await import('../../ui/SetAside')).SetAside }));
const ConfirmStart = lazy(async () => ({ default: (await import('./ConfirmStart')).ConfirmStart }));
const Chosen = lazy(async () => ({ default: (await import('./Chosen')).Chosen }));
const Legend = lazy(async () => ({ default: (await import('./Legend')).Legend }));

/**
 * The start page: which machines next, what to do to each, why and by when.
 * @param empty What is shown while there are no machines.
 */
export function Rounds({ empty }: { empty: ReactNode }) {
  usePageTitle(t`Rounds`);
  const queue = useQueue();
  if (!queue.data)
    return <Unready of={[queue]} title={t`Reading the fleet…`} failed={t`The queue cannot be shown.`} />;
  if (queue.data.total === 0 && !queue.data.pending) return <Suspense>{empty}</Suspense>;
  return (
    <Queue
      queue={queue.data}
      partial={queue.isPlaceholderData && queue.data.items.length < queue.data.total}
    />
  );
}

/** @param partial Whether these are the first rows only, the others being on their way. */
function Queue({ queue, partial }: { queue: Schemas['QueueAnswer']; partial: boolean }) {
  const view = useView();
  const { filter, filtering, grouping, order } = view;
  const [selected, setSelected] = useState<string | null>(null);
  const [toggled, setToggled] = useState<ReadonlySet<string>>(new Set());
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [aside, setAside] = useState<QueueItem | null>(null);
  const [starting, setStarting] = useState<{ asset: string; level: ServiceLevel } | null>(null);
  const [legend, setLegend] = useState(false);
  const [finding, setFinding] = useState(false);
  const list = useRef<ListHandle>(null);
  const search = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const startJob = useStartJob();
  const noPanel = useNarrow(1020);

  const key = JSON.stringify(filter);
  const lines = useMemo(() => {
    const shown = queue.items.filter((item) => matches(item, JSON.parse(key) as Filter));
    return group(inOrder(shown, order), grouping, queue.asOf).flatMap((g): Line[] => {
      const open = (!g.calm || filtering) !== toggled.has(g.key);
      return [
        { kind: 'group', group: g, open },
        ...(open ? g.items.map((item): Line => ({ kind: 'row', item })) : []),
      ];
    });
  }, [queue.items, queue.asOf, key, grouping, order, toggled, filtering]);
  const picked = useMemo(() => queue.items.filter((i) => chosen.has(i.asset)), [queue.items, chosen]);

  const rows = useMemo(
    () => lines.flatMap((line, i) => (line.kind === 'row' ? [{ item: line.item, i }] : [])),
    [lines],
  );
  const said = useMemo(() => ({ headline: headline(queue), remarks: remarks(queue) }), [queue]);
  const current = rows.find((r) => r.item.asset === selected) ?? rows[0];
  // The rows are drawn first, then the panel beside them.
  const beside = useDeferredValue(current?.item, null);
  const walk = (step: number) => {
    const at = rows.findIndex((r) => r.item.asset === current?.item.asset);
    const next = rows[Math.min(rows.length - 1, Math.max(0, at + (selected === null ? 0 : step)))];
    if (!next) return;
    setSelected(next.item.asset);
    list.current?.show(next.i);
  };
  const open = (item: QueueItem) => void navigate(`/machines/${encodeURIComponent(item.asset)}`);
  const toggle = (set: ReadonlySet<string>, value: string) => {
    const next = new Set(set);
    if (!next.delete(value)) next.add(value);
    return next;
  };
  /** A key starts nothing without asking. */
  const askToStart = ({ asset, service }: QueueItem) => {
    if (service) setStarting({ asset, level: service });
  };
  useKeys({
    // The field may not have come yet.
    f: () => (search.current ? search.current.focus() : setFinding(true)),
    ArrowDown: () => walk(1),
    ArrowUp: () => walk(-1),
    Enter: () => current && open(current.item),
    ' ': () => current && setChosen((all) => toggle(all, current.item.asset)),
    w: () => current && askToStart(current.item),
    n: () => current && setAside(current.item),
    p: () => view.set('by', grouping === 'zone' ? null : 'zone'),
    e: () => setLegend(true),
  });

  return (
    <div className="rounds">
      <section className="rounds-list" aria-label={t`Machines, most pressing first`}>
        <div className="rounds-top">
          <span>
            {queue.judgedAt
              ? t`judged ${clock(queue.judgedAt)} as of ${fullDay(queue.asOf)}`
              : t`not judged yet`}
            {partial && <span role="status"> {t`· the other rows are on their way …`}</span>}
            {queue.pending && (
              <span role="status">
                {' '}
                {t`· judging newer data`}
                {queue.progress && queue.progress.of > 0
                  ? t`, zone ${String(queue.progress.done)} of ${String(queue.progress.of)}`
                  : ''}{' '}
                …
              </span>
            )}
          </span>
          <Button type="link" size="small" onClick={() => setLegend(true)}>
            {t`How to read the strip`}
          </Button>
        </div>
        <h1>{said.headline}</h1>
        <p className="quiet rounds-remarks">
          {said.remarks.map((remark) => (
            <span key={remark.text}>
              {remark.text}{' '}
              {remark.only && (
                <Button
                  type="link"
                  size="small"
                  aria-pressed={filter.only === remark.only}
                  onClick={() => view.set('only', filter.only === remark.only ? null : remark.only!)}
                >
                  {filter.only === remark.only ? t`show all` : t`show`}
                </Button>
              )}{' '}
            </span>
          ))}
        </p>
        <Suspense fallback={<div className="rounds-filters rounds-filters-coming" />}>
          <Toolbar items={queue.items} view={view} search={search} finding={finding} />
        </Suspense>
        <Suspense>
          {picked.length > 0 && <Chosen items={picked} onClear={() => setChosen(new Set())} />}
        </Suspense>
        {lines.length === 0 && queue.judgedAt !== null && (
          <p className="rounds-none">
            {grouping === 'warranty' && !filtering
              ? t`No machine that needs work is under warranty.`
              : t`No machine matches.`}{' '}
            <Button onClick={view.clear}>{t`Clear the filters`}</Button>
          </p>
        )}
        <List
          ref={list}
          lines={lines}
          asOf={queue.asOf}
          current={current?.item.asset}
          chosen={chosen}
          onToggle={(g) => setToggled((before) => toggle(before, g))}
          onPick={(item) => {
            if (noPanel || item.asset === selected) open(item);
            else setSelected(item.asset);
          }}
          onChoose={(tag) => setChosen((all) => toggle(all, tag))}
        />
      </section>
      <aside className="rounds-side" aria-label={t`The machine picked`}>
        {beside && <SidePanel item={beside} onSetAside={() => setAside(beside)} startJob={startJob} />}
        {!current && <p className="quiet">{t`Pick a machine to see its heat path.`}</p>}
      </aside>
      <Suspense>
        {aside && <SetAside tags={[aside.asset]} onClose={() => setAside(null)} />}
        {starting && <ConfirmStart {...starting} start={startJob} onClose={() => setStarting(null)} />}
        {legend && <Legend onClose={() => setLegend(false)} />}
      </Suspense>
    </div>
  );
}
