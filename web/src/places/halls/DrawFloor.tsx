import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useState, type KeyboardEvent, type PointerEvent } from 'react';
import { api, unwrap, type QueueItem, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { Refusal } from '../../ui/Refusal';
import { walkingOrder } from '../../words/walking';
import { inRows, moved, type Place, type Plan } from './floor';

/** The size of a cell with its gap, px: as in the stylesheet. */
const CELL = { width: 78, height: 44 };

const ARROWS: Record<string, readonly [columns: number, rows: number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Draws where the machines of a zone stand: by dragging, or by the arrow keys on a machine. */
export function DrawFloor({
  zone,
  items,
  onClose,
}: {
  zone: Schemas['ZoneAnswer'];
  items: readonly QueueItem[];
  onClose: () => void;
}) {
  const [plan, setPlan] = useState<Plan>(
    () => new Map(items.flatMap((i) => (i.place ? [[i.asset, i.place] as const] : []))),
  );
  const [drag, setDrag] = useState<{ tag: string; x: number; y: number; from: Place; before: Plan } | null>(
    null,
  );
  const write = useWrite(() =>
    unwrap(
      api.PUT('/api/v1/zones/{code}/floor', {
        params: { path: { code: zone.code } },
        body: { places: items.map((i) => ({ asset: i.asset, place: plan.get(i.asset) ?? null })) },
      }),
    ),
  );
  const loose = walkingOrder(items.filter((i) => !plan.has(i.asset)));
  const rows = Math.max(3, ...[...plan.values()].map((p) => p.row + 2));
  const columns = Math.max(10, ...[...plan.values()].map((p) => p.column + 2));
  const put = (tag: string, place: Place) => setPlan((before) => moved(before, tag, place));

  const onKey = (event: KeyboardEvent, tag: string, from: Place) => {
    const by = ARROWS[event.key];
    if (event.key === 'Delete') setPlan((before) => new Map([...before].filter(([t]) => t !== tag)));
    else if (by) put(tag, { column: from.column + by[0], row: from.row + by[1] });
    else return;
    event.preventDefault();
  };
  const under = (event: PointerEvent, at: NonNullable<typeof drag>): Place => ({
    column: at.from.column + Math.round((event.clientX - at.x) / CELL.width),
    row: at.from.row + Math.round((event.clientY - at.y) / CELL.height),
  });

  return (
    <section className="section" aria-label={t`The floor of ${zone.name}`}>
      <div className="section-head">
        <h2>{t`The floor of ${zone.name}`}</h2>
        <span className="bench-more">
          <Button
            type="primary"
            loading={write.isPending}
            onClick={() => void write.mutateAsync(undefined).then(onClose, () => undefined)}
          >
            {t`Keep the plan`}
          </Button>
          <Button onClick={onClose}>{t`Leave it`}</Button>
        </span>
      </div>
      {write.isError && <Refusal error={write.error} />}
      <p className="quiet">
        {t`Drag each machine to where it stands, or move it by the arrow keys; Delete takes it off the plan. A row may be an aisle, a rack or a shelf. Rounds walk along the rows.`}
      </p>
      <div className="hall-drawing">
        <ul className="hall-loose" aria-label={t`Not on the plan`}>
          {loose.length > 0 && (
            <li>
              <Button
                size="small"
                onClick={() =>
                  setPlan((before) =>
                    inRows(
                      before,
                      loose.map((i) => i.asset),
                    ),
                  )
                }
              >
                {t`Put all in rows`}
              </Button>
            </li>
          )}
          {loose.map((item) => (
            <li key={item.asset}>
              <Button size="small" onClick={() => setPlan((before) => inRows(before, [item.asset]))}>
                {item.asset}
              </Button>
            </li>
          ))}
        </ul>
        <div
          className="hall-sheet"
          style={{ width: columns * CELL.width, height: rows * CELL.height }}
          role="group"
          aria-label={t`Plan`}
        >
          {[...plan].map(([tag, place]) => (
            <button
              key={tag}
              type="button"
              className="hall-cell hall-piece"
              aria-label={t`${tag}, column ${String(place.column + 1)}, row ${String(place.row + 1)}`}
              style={{ left: place.column * CELL.width, top: place.row * CELL.height }}
              onKeyDown={(e) => onKey(e, tag, place)}
              onPointerDown={(e) => {
                e.currentTarget.setPointerCapture(e.pointerId);
                setDrag({ tag, x: e.clientX, y: e.clientY, from: place, before: plan });
              }}
              onPointerMove={(e) => {
                // From the plan as it was: what is only dragged over stays where it stands.
                if (drag?.tag === tag) setPlan(moved(drag.before, tag, under(e, drag)));
              }}
              onPointerUp={() => setDrag(null)}
            >
              {tag}
            </button>
          ))}
        </div>
      </div>
    </section>
  );
}
