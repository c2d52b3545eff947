import { t } from '@lingui/core/macro';
import type { Schemas } from '../api/client';
import { SCREW_PLACES } from '../words/work';
import { partName } from '../words/format';

type Notes = Schemas['ModelNotes'];

/** Where the pointer takes hold of something on the plan. */
export interface Grip {
  kind: 'screw' | 'pad';
  number: number;
}

/** The plan of a model: its outline, the screws and pads where they sit, numbered; the order drawn as one line. */
export function ModelPlan({
  notes,
  show,
  order,
  only,
  chosen,
  onPick,
  onPlace,
}: {
  notes: Notes;
  show: 'screws' | 'pads' | 'both';
  order: readonly number[];
  only?: Schemas['ScrewPlace'] | undefined;
  chosen?: Grip | null;
  onPick?: (grip: Grip) => void;
  onPlace?: (xMm: number, yMm: number) => void;
}) {
  const { widthMm: w, heightMm: h } = notes;
  // Marks have to be told apart on a phone, whatever the size of the machine.
  const r = Math.max(w, h) / 46;
  const screws = show === 'pads' ? [] : notes.screws.filter((s) => !only || s.place === only);
  const pads = show === 'screws' ? [] : notes.pads;
  if (screws.length === 0 && pads.length === 0 && !onPlace) return null;
  const path = only
    ? order.map((n) => screws.find((s) => s.number === n)).filter((s) => s !== undefined)
    : [];
  const words = [
    ...screws.map(
      (s) => t`screw ${String(s.number)}, ${String(s.lengthMm)} mm ${s.driver}, ${SCREW_PLACES[s.place]}`,
    ),
    ...pads.map((p) => t`pad ${String(p.number)}, ${partName(p.part)}, ${String(p.thicknessMm)} mm`),
  ].join('; ');
  return (
    <svg
      className="model-plan"
      viewBox={`${String(-r)} ${String(-r)} ${String(w + 2 * r)} ${String(h + 2 * r)}`}
      role="img"
      aria-label={t`Plan of ${notes.model}: ${words}`}
      onClick={(e) => {
        if (!onPlace) return;
        const box = e.currentTarget.getBoundingClientRect();
        const scale = (w + 2 * r) / box.width;
        onPlace(
          Math.round(Math.min(w, Math.max(0, (e.clientX - box.left) * scale - r))),
          Math.round(Math.min(h, Math.max(0, (e.clientY - box.top) * scale - r))),
        );
      }}
    >
      <rect
        x={0}
        y={0}
        width={w}
        height={h}
        rx={r / 2}
        fill="var(--panel)"
        stroke="var(--stone)"
        strokeWidth={r / 8}
      />
      {path.length > 1 && (
        <polyline
          points={path.map((s) => `${String(s.xMm)},${String(s.yMm)}`).join(' ')}
          fill="none"
          stroke="var(--stone)"
          strokeWidth={r / 5}
          strokeDasharray={`${String(r / 2)} ${String(r / 3)}`}
        />
      )}
      {pads.map((p) => (
        <g
          key={`pad ${String(p.number)}`}
          onClick={(e) => {
            if (!onPick) return;
            e.stopPropagation();
            onPick({ kind: 'pad', number: p.number });
          }}
        >
          <rect
            x={p.xMm}
            y={p.yMm}
            width={p.widthMm}
            height={p.heightMm}
            fill="var(--track)"
            stroke="var(--ink)"
            strokeWidth={chosen?.kind === 'pad' && chosen.number === p.number ? r / 3 : r / 8}
          />
          <text
            x={p.xMm + p.widthMm / 2}
            y={p.yMm + p.heightMm / 2}
            className="plan-number"
            fill="var(--ink)"
            fontSize={r * 1.1}
          >
            {p.number}
          </text>
          <text
            x={p.xMm + p.widthMm / 2}
            y={p.yMm + p.heightMm + r * 0.95}
            className="plan-size"
            fontSize={r * 0.85}
          >
            {p.thicknessMm.toFixed(1)}
          </text>
        </g>
      ))}
      {screws.map((s) => (
        <g
          key={`screw ${String(s.number)}`}
          onClick={(e) => {
            if (!onPick) return;
            e.stopPropagation();
            onPick({ kind: 'screw', number: s.number });
          }}
        >
          <circle
            cx={s.xMm}
            cy={s.yMm}
            r={r}
            fill={s.place === 'cooler' ? 'var(--ink)' : 'var(--paper)'}
            stroke="var(--ink)"
            strokeWidth={chosen?.kind === 'screw' && chosen.number === s.number ? r / 3 : r / 8}
          />
          <text
            x={s.xMm}
            y={s.yMm}
            className="plan-number"
            fontSize={r * 1.1}
            fill={s.place === 'cooler' ? 'var(--paper)' : 'var(--ink)'}
          >
            {s.number}
          </text>
          <text x={s.xMm} y={s.yMm + r * 1.95} className="plan-size" fontSize={r * 0.85}>
            {s.lengthMm}
          </text>
        </g>
      ))}
    </svg>
  );
}
