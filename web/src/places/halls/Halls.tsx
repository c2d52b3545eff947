import { Button, Skeleton, Tooltip } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useMachines, useQueue, useZones } from '../../api/queries';
import type { QueueItem, Schemas } from '../../api/client';
import { AddMachines } from '../../ui/entry/AddMachines';
import { count, kelvin, useTemperature } from '../../words/format';
import { Refusal } from '../../ui/Refusal';
import { usePageTitle } from '../../ui/usePageTitle';
import { heat } from '../../theme/heat';
import { AddZone, EditZone } from './EditZone';
import './halls.css';

/** Sites and zones with every machine in its place; a room that is too warm shows here as one thing. */
export function Halls() {
  usePageTitle('Halls');
  const zones = useZones();
  const queue = useQueue();
  const machines = useMachines();
  const { full } = useTemperature();
  const [adding, setAdding] = useState(false);
  const [addingZone, setAddingZone] = useState(false);
  if (zones.isError || queue.isError)
    return (
      <div className="page">
        <h1>The halls cannot be shown.</h1>
        <Refusal error={(zones.error ?? queue.error)!} retry={() => void zones.refetch()} />
      </div>
    );
  if (zones.isPending || queue.isPending)
    return (
      <div className="page" aria-busy="true">
        <h1>Halls</h1>
        <Skeleton active />
      </div>
    );
  const warm = zones.data.filter((z) => (z.roomKelvin ?? 0) >= 2);
  const sites = [...new Map(zones.data.map((z) => [z.site, z.siteName])).entries()];
  const retired = machines.data?.filter((m) => m.retiredOn !== null) ?? [];
  return (
    <div className="page">
      <h1>
        {zones.data.length === 0
          ? 'No halls yet.'
          : warm.length === 0
            ? zones.data.some((z) => z.roomKelvin !== null)
              ? 'No room is too warm.'
              : 'Too little is measured to tell any room from its machines.'
            : `${warm.map((z) => z.name).join(' and ')} ${warm.length === 1 ? 'is' : 'are'} too warm as a whole.`}
      </h1>
      <p className="quiet">
        {zones.data.length === 0
          ? 'They come in with the first machines.'
          : 'What a room adds to all its machines alike, whatever their heat, is the room’s: see to its air before any of them.'}
      </p>
      <div style={{ display: 'flex', gap: 8, margin: '10px 0' }}>
        <Button onClick={() => setAdding(true)}>Add machines</Button>
        <Button onClick={() => setAddingZone(true)}>Add a zone</Button>
        {zones.data.length > 0 && (
          <Link to="/round">
            <Button>A round: type readings</Button>
          </Link>
        )}
      </div>
      {adding && <AddMachines onClose={() => setAdding(false)} />}
      {addingZone && <AddZone site={zones.data[0]} onClose={() => setAddingZone(false)} />}
      {sites.map(([site, name]) => (
        <section className="section" key={site} aria-label={name}>
          <div className="section-head">
            <h2>{name}</h2>
          </div>
          {zones.data
            .filter((z) => z.site === site)
            .map((zone) => (
              <Zone
                key={zone.code}
                zone={zone}
                items={queue.data.items.filter((i) => i.zone === zone.code)}
                design={full(zone.designAmbientCelsius)}
              />
            ))}
        </section>
      ))}
      {retired.length > 0 && (
        <section className="section" aria-label="Retired">
          <div className="section-head">
            <h2>Retired</h2>
          </div>
          <div className="hall-machines">
            {retired.map((m) => (
              <Link key={m.tag} to={`/machines/${encodeURIComponent(m.tag)}`} className="struck">
                {m.tag}
              </Link>
            ))}
          </div>
        </section>
      )}
    </div>
  );
}

function Zone({
  zone,
  items,
  design,
}: {
  zone: Schemas['ZoneAnswer'];
  items: readonly QueueItem[];
  design: string;
}) {
  const room = zone.roomKelvin;
  const [editing, setEditing] = useState(false);
  return (
    <div
      style={{
        display: 'grid',
        gridTemplateColumns: '210px minmax(0, 1fr)',
        gap: 18,
        padding: '10px 0',
        borderBottom: '1px solid var(--line)',
      }}
    >
      <div>
        <strong>{zone.name}</strong>
        <div className="small quiet">
          {count(items.length, 'machine')} · {zone.dust} dust · planned for {design}
        </div>
        <div className="small" style={{ marginTop: 4 }}>
          {room === null
            ? 'Too few measured machines to tell the room from them.'
            : Math.abs(room) < 1
              ? 'The room is as warm as its sensors say.'
              : `The room is ${kelvin(Math.abs(room))} ${room > 0 ? 'warmer' : 'cooler'} than its sensors say.`}
        </div>
        <Button
          size="small"
          style={{ marginTop: 6 }}
          onClick={() => setEditing(true)}
          aria-label={`Edit ${zone.name}`}
        >
          Edit
        </Button>
        {editing && <EditZone zone={zone} empty={items.length === 0} onClose={() => setEditing(false)} />}
      </div>
      <div className="hall-machines">
        {[...items]
          .sort((a, b) => a.asset.localeCompare(b.asset))
          .map((item) => (
            <Tooltip key={item.asset} title={item.reason} mouseEnterDelay={0.3}>
              <Link to={`/machines/${encodeURIComponent(item.asset)}`}>
                {item.asset}
                <span className="quiet" style={{ display: 'block' }}>
                  {item.driftKelvin === null
                    ? '?'
                    : item.driftKelvin >= 1
                      ? `+${kelvin(item.driftKelvin)}`
                      : 'fresh'}
                </span>
                {item.strip && <Used strip={item.strip} />}
              </Link>
            </Tooltip>
          ))}
      </div>
    </div>
  );
}

/** How much of the way from the air to the limit is used up. */
function Used({ strip }: { strip: Schemas['Strip'] }) {
  const share = (strip.now - strip.ambient) / Math.max(1, strip.limit - strip.ambient);
  return (
    <span className="hall-used">
      <span
        style={{
          width: `${String(Math.round(100 * Math.min(1, Math.max(0, share))))}%`,
          background: heat(strip.limit - strip.now),
        }}
      />
    </span>
  );
}
