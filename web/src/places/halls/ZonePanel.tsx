import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { QueueItem, Schemas } from '../../api/client';
import { CauseMark } from '../../ui/marks/CauseMark';
import { WaitingTable } from '../../ui/WaitingTable';
import { kelvin } from '../../words/format';
import { say } from '../../words/message';
import { AirChart } from './AirChart';
import { hasSomething } from './Cell';
import { EditZone } from './EditZone';

const MOST = 12;

/** The zone picked: its air, and its machines, worst first. */
export function ZonePanel({
  zone,
  items,
  events,
  judgedAt,
  onDraw,
}: {
  zone: Schemas['ZoneAnswer'];
  items: readonly QueueItem[];
  events: readonly Schemas['GroupEventAnswer'][];
  judgedAt: string | null;
  onDraw: () => void;
}) {
  const [editing, setEditing] = useState(false);
  const worst = items
    .filter(hasSomething)
    .toSorted((a, b) => (b.driftKelvin ?? 0) - (a.driftKelvin ?? 0) || a.rank - b.rank);
  return (
    <aside className="hall-side" aria-label={zone.name}>
      <div className="section-head">
        <h2>{t`Air of ${zone.name}`}</h2>
      </div>
      <AirChart key={zone.code} zone={zone} />
      <p>{roomWords(zone)}</p>
      {events
        .filter((e) => e.machines.some((tag) => items.some((item) => item.asset === tag)))
        .map((e) => (
          <p key={e.kind + e.group + e.since}>{say(e.message)}</p>
        ))}
      <div className="bench-more">
        <Button onClick={() => setEditing(true)} aria-label={t`Edit ${zone.name}`}>
          {t`Edit`}
        </Button>
        <Button onClick={onDraw}>{t`Draw the floor`}</Button>
        <Link to={`/round?zone=${encodeURIComponent(zone.code)}`}>
          <Button>{t`A round here`}</Button>
        </Link>
      </div>
      {editing && <EditZone zone={zone} empty={items.length === 0} onClose={() => setEditing(false)} />}
      <div className="section-head hall-worst">
        <h2>{t`Worst first`}</h2>
      </div>
      {worst.length === 0 && <p className="quiet">{t`None of its machines has anything to tell.`}</p>}
      <ul>
        {worst.slice(0, MOST).map((item) => (
          <li key={item.asset}>
            <CauseMark cause={item.cause} />
            <Link to={`/machines/${encodeURIComponent(item.asset)}`} className="figures">
              {item.asset}
            </Link>
            <span className="figures">{item.driftKelvin === null ? '' : `+${kelvin(item.driftKelvin)}`}</span>
          </li>
        ))}
      </ul>
      <WaitingTable of="zones" name={zone.code} judgedAt={judgedAt} />
      {worst.length > MOST && (
        <Link to={`/?zone=${encodeURIComponent(zone.code)}`}>
          {t`and ${worst.length - MOST} more, on Rounds`}
        </Link>
      )}
    </aside>
  );
}

/** What is known of a room, apart from its machines. */
export function roomWords(zone: Schemas['ZoneAnswer']): string {
  const room = zone.roomKelvin;
  if (room === null) return t`Too few measured machines to tell the room from them.`;
  const by = kelvin(Math.abs(room));
  if (Math.abs(room) < 1)
    return t`The room is not the reason: ${zone.machines} machines show its air within ${by} of what the sensors say.`;
  return room > 0
    ? t`${zone.machines} machines show ${by} more than the sensors, whatever their heat: that is the room.`
    : t`${zone.machines} machines show ${by} less than the sensors, whatever their heat: that is the room.`;
}
