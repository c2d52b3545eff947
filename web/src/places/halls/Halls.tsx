import { plural, t } from '@lingui/core/macro';
import { Button, Segmented } from 'antd';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useMachines, useQueue, useZones } from '../../api/queries';
import type { QueueItem, Schemas } from '../../api/client';
import { heat, HEAT_STEPS } from '../../theme/heat';
import { AddMachines } from '../../ui/entry/AddMachines';
import { usePageTitle } from '../../ui/usePageTitle';
import { kelvin, listed, useTemperature } from '../../words/format';
import { say } from '../../words/message';
import { walkingOrder } from '../../words/walking';
import { hasSomething } from './Cell';
import { DrawFloor } from './DrawFloor';
import { AddZone } from './EditZone';
import '../../ui/work.css';
import './halls.css';
import { ZoneFloor } from './ZoneFloor';
import { ZonePanel } from './ZonePanel';
import { word } from '../../words/word';
import { PlainTable } from '../../ui/PlainTable';
import { Unready } from '../../ui/Unready';

/** A room that is this much too warm is told before its machines, K. */
const WARM = 2;

/** A warm room glows like a machine that has lost so much, K. */
const WARM_GLOW = 12;

/** This much lost is worth opening a machine for, K: the house's rule unless it says otherwise. */
const MUCH = 6;

/** Sites and zones with every machine in its place: one look tells where trouble is. */
export function Halls() {
  usePageTitle(t`Halls`);
  const queue = useQueue();
  const zones = useZones(queue.data?.judgedAt);
  if (!zones.data || !queue.data || queue.isPlaceholderData)
    return <Unready of={[zones, queue]} title={t`Halls`} failed={t`The halls cannot be shown.`} />;
  return (
    <AllHalls
      zones={zones.data}
      items={queue.data.items}
      events={queue.data.events}
      judgedAt={queue.data.judgedAt}
    />
  );
}

function AllHalls({
  zones,
  items,
  events,
  judgedAt,
}: {
  zones: readonly Schemas['ZoneAnswer'][];
  items: readonly QueueItem[];
  events: readonly Schemas['GroupEventAnswer'][];
  judgedAt: string | null;
}) {
  const machines = useMachines();
  const [params, setParams] = useSearchParams();
  const [adding, setAdding] = useState<'machines' | 'zone' | null>(null);
  const [drawing, setDrawing] = useState(false);
  const set = (name: string, value: string | null) => {
    const next = new URLSearchParams(window.location.search);
    if (value) next.set(name, value);
    else next.delete(name);
    setParams(next, { replace: true });
  };
  const only = params.get('only') === 'something';
  const asList = params.get('as') === 'list';
  const byZone = useMemo(() => {
    const zones = new Map<string, QueueItem[]>();
    for (const item of items) {
      const here = zones.get(item.zone);
      if (here) here.push(item);
      else zones.set(item.zone, [item]);
    }
    return zones;
  }, [items]);
  const warmest = zones.toSorted((a, b) => (b.roomKelvin ?? 0) - (a.roomKelvin ?? 0))[0];
  const picked = zones.find((z) => z.code === params.get('zone')) ?? warmest;
  const sites = [...new Map(zones.map((z) => [z.site, z.siteName])).entries()];
  const retired = machines.data?.filter((m) => m.retiredOn !== null) ?? [];
  return (
    <div className="halls">
      <div className="page">
        <h1>{headline(zones)}</h1>
        <p className="quiet">{subline(zones, items)}</p>
        <div className="bench-more">
          <Button aria-pressed={only} onClick={() => set('only', only ? null : 'something')}>
            {only ? t`All machines` : t`Only those with something`}
          </Button>
          <Segmented
            aria-label={t`Shown as`}
            value={asList ? 'list' : 'floor'}
            onChange={(v) => set('as', v === 'list' ? 'list' : null)}
            options={[
              { value: 'floor', label: t`where they stand` },
              { value: 'list', label: t`as a list` },
            ]}
          />
          <Button onClick={() => setAdding('machines')}>{t`Add machines`}</Button>
          <Button onClick={() => setAdding('zone')}>{t`Add a zone`}</Button>
          {zones.length > 0 && (
            <Link to="/round">
              <Button>{t`A round: type readings`}</Button>
            </Link>
          )}
        </div>
        {adding === 'machines' && <AddMachines onClose={() => setAdding(null)} />}
        {adding === 'zone' && (
          <AddZone site={zones[0]} onAdded={(code) => set('zone', code)} onClose={() => setAdding(null)} />
        )}
        {drawing && picked && (
          <DrawFloor
            key={picked.code}
            zone={picked}
            items={byZone.get(picked.code) ?? []}
            onClose={() => setDrawing(false)}
          />
        )}
        {sites.map(([site, name]) => (
          <section className="section" key={site} aria-label={name}>
            <div className="section-head">
              <h2>{name}</h2>
            </div>
            {zones
              .filter((z) => z.site === site)
              .map((zone) => (
                <Zone
                  key={zone.code}
                  zone={zone}
                  items={byZone.get(zone.code) ?? []}
                  only={only}
                  asList={asList}
                  picked={zone === picked}
                  onPick={() => set('zone', zone.code)}
                />
              ))}
          </section>
        ))}
        {zones.length > 0 && !asList && <HeatLegend />}
        {retired.length > 0 && (
          <section className="section" aria-label={t`Retired`}>
            <div className="section-head">
              <h2>{t`Retired`}</h2>
            </div>
            <div className="hall-machines">
              {retired.map((m) => (
                <Link key={m.tag} to={`/machines/${encodeURIComponent(m.tag)}`} className="hall-cell struck">
                  {m.tag}
                </Link>
              ))}
            </div>
          </section>
        )}
      </div>
      {picked && (
        <ZonePanel
          zone={picked}
          items={byZone.get(picked.code) ?? []}
          events={events}
          judgedAt={judgedAt}
          onDraw={() => setDrawing(true)}
        />
      )}
    </div>
  );
}

function Zone({
  zone,
  items,
  only,
  asList,
  picked,
  onPick,
}: {
  zone: Schemas['ZoneAnswer'];
  items: readonly QueueItem[];
  only: boolean;
  asList: boolean;
  picked: boolean;
  onPick: () => void;
}) {
  const { full } = useTemperature();
  const room = zone.roomKelvin ?? 0;
  const shown = only ? items.filter(hasSomething) : items;
  return (
    <div
      className={room >= WARM ? 'hall-zone warm' : 'hall-zone'}
      style={room >= WARM ? { borderTopColor: heat(WARM_GLOW) } : undefined}
      aria-current={picked}
    >
      <div>
        <button type="button" className="hall-name" aria-pressed={picked} onClick={onPick}>
          {zone.name}
        </button>
        <div className="small quiet">
          {t`${plural(items.length, { one: '# machine', other: '# machines' })} · ${word(zone.dust)} dust · planned for ${full(zone.designAmbientCelsius)}`}
        </div>
        {room >= WARM && <strong className="small">{t`air ${kelvin(room)} too warm`}</strong>}
      </div>
      <div>
        {shown.length === 0 && (
          <p className="small quiet">
            {items.length === 0 ? t`No machines yet.` : t`None with anything to tell.`}
          </p>
        )}
        {asList ? <ZoneList items={shown} /> : <ZoneFloor items={shown} />}
      </div>
    </div>
  );
}

function ZoneList({ items }: { items: readonly QueueItem[] }) {
  if (items.length === 0) return null;
  return (
    <div className="scroll-x">
      <PlainTable
        head={
          <>
            <th scope="col">{t`machine`}</th>
            <th scope="col">{t`model`}</th>
            <th scope="col" className="num">
              {t`lost`}
            </th>
            <th scope="col">{t`why`}</th>
          </>
        }
      >
        {walkingOrder(items).map((item) => (
          <tr key={item.asset}>
            <td className="figures">
              <Link to={`/machines/${encodeURIComponent(item.asset)}`} className="unbroken">
                {item.asset}
              </Link>
            </td>
            <td>{item.model}</td>
            <td className="num">{item.driftKelvin === null ? '–' : kelvin(item.driftKelvin)}</td>
            <td>{say(item.reasonMessage)}</td>
          </tr>
        ))}
      </PlainTable>
    </div>
  );
}

function HeatLegend() {
  return (
    <p className="small quiet hall-legend">
      {t`Lost since fresh:`}{' '}
      {HEAT_STEPS.map((step) => (
        <span key={step.kelvin} style={{ background: step.colour, color: step.text }}>
          {kelvin(step.kelvin)}
          {step === HEAT_STEPS.at(-1) ? t` and more` : ''}
        </span>
      ))}{' '}
      {t`Without colour: less than ${kelvin(HEAT_STEPS[0]!.kelvin)}. A dashed frame: one host.`}
    </p>
  );
}

function headline(zones: readonly Schemas['ZoneAnswer'][]): string {
  const warm = zones.filter((z) => (z.roomKelvin ?? 0) >= WARM);
  if (zones.length === 0) return t`No halls yet.`;
  const named = listed(warm.map((z) => z.name));
  if (warm.length > 0)
    return plural(warm.length, {
      one: `${named} is too warm as a whole.`,
      other: `${named} are too warm as a whole.`,
    });
  return zones.some((z) => z.roomKelvin !== null)
    ? t`No room is too warm.`
    : t`Too little is measured to tell any room from its machines.`;
}

function subline(zones: readonly Schemas['ZoneAnswer'][], items: readonly QueueItem[]): string {
  if (zones.length === 0) return t`They come in with the first machines.`;
  const worn = items.filter((i) => (i.driftKelvin ?? 0) >= MUCH).length;
  const warm = zones.filter((z) => (z.roomKelvin ?? 0) >= WARM);
  const much = kelvin(MUCH);
  const lost = plural(worn, {
    0: `No machine has lost ${much} or more.`,
    one: `# machine has lost ${much} or more.`,
    other: `# machines have lost ${much} or more.`,
  });
  return warm.length > 0
    ? t`See to its air first: no service of its machines helps against that. ${lost}`
    : lost;
}
