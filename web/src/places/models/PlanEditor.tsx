import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { ModelPlan, type Grip } from '../../ui/ModelPlan';
import { NumberField } from '../../ui/NumberField';
import { PadFields, ScrewFields } from './GripFields';

type Notes = Schemas['ModelNotes'];
type Screw = Schemas['Screw'];
type Pad = Schemas['PadNote'];

/** Screws and pads put where they sit on the plan, with what has to be known of each. */
export function PlanEditor({
  notes,
  order,
  change,
}: {
  notes: Notes;
  order: readonly number[];
  change: (next: Partial<Notes>) => void;
}) {
  const [grip, setGrip] = useState<Grip | null>(null);
  const screw = grip?.kind === 'screw' ? notes.screws.find((s) => s.number === grip.number) : undefined;
  const pad = grip?.kind === 'pad' ? notes.pads.find((p) => p.number === grip.number) : undefined;
  const setScrew = (number: number, next: Partial<Screw>) =>
    change({ screws: notes.screws.map((s) => (s.number === number ? { ...s, ...next } : s)) });
  const setPad = (number: number, next: Partial<Pad>) =>
    change({ pads: notes.pads.map((p) => (p.number === number ? { ...p, ...next } : p)) });
  const place = (xMm: number, yMm: number) => {
    if (screw) setScrew(screw.number, { xMm, yMm });
    else if (pad)
      setPad(pad.number, {
        xMm: Math.max(0, Math.min(notes.widthMm - pad.widthMm, Math.round(xMm - pad.widthMm / 2))),
        yMm: Math.max(0, Math.min(notes.heightMm - pad.heightMm, Math.round(yMm - pad.heightMm / 2))),
      });
  };
  const next = (numbers: readonly { number: number }[]) => Math.max(0, ...numbers.map((n) => n.number)) + 1;
  const addScrew = () => {
    const number = next(notes.screws);
    const like = notes.screws.at(-1);
    change({
      screws: [
        ...notes.screws,
        {
          number,
          place: like?.place ?? 'cover',
          xMm: Math.round(notes.widthMm / 2),
          yMm: Math.round(notes.heightMm / 2),
          lengthMm: like?.lengthMm ?? 5,
          driver: like?.driver ?? 'PH1',
          order: null,
        },
      ],
    });
    setGrip({ kind: 'screw', number });
  };
  const addPad = () => {
    const number = next(notes.pads);
    const like = notes.pads.at(-1);
    change({
      pads: [
        ...notes.pads,
        {
          number,
          part: like?.part ?? 'memory',
          xMm: Math.round(notes.widthMm / 2),
          yMm: Math.round(notes.heightMm / 2),
          widthMm: like?.widthMm ?? 12,
          heightMm: like?.heightMm ?? 7,
          thicknessMm: like?.thicknessMm ?? 1,
        },
      ],
    });
    setGrip({ kind: 'pad', number });
  };
  return (
    <>
      <ModelPlan notes={notes} show="both" order={order} chosen={grip} onPick={setGrip} onPlace={place} />
      <p className="small quiet" role="status">
        {screw || pad
          ? t`Tap the plan to put it where it sits, or use the fields.`
          : t`Tap a screw or pad to take hold of it. Filled screws hold the cooler.`}
      </p>
      <div className="bench-more">
        <Button onClick={addScrew}>{t`Add a screw`}</Button>
        <Button onClick={addPad}>{t`Add a pad`}</Button>
        <label>
          {t`Plan, mm`}{' '}
          <NumberField
            aria-label={t`Width of the plan, mm`}
            min={10}
            max={2000}
            value={notes.widthMm}
            onChange={(v) => v && change({ widthMm: v })}
            style={{ width: 90 }}
          />{' '}
          ×{' '}
          <NumberField
            aria-label={t`Height of the plan, mm`}
            min={10}
            max={2000}
            value={notes.heightMm}
            onChange={(v) => v && change({ heightMm: v })}
            style={{ width: 90 }}
          />
        </label>
      </div>
      {screw && (
        <ScrewFields
          screw={screw}
          set={(next) => setScrew(screw.number, next)}
          onRemove={() => {
            change({ screws: notes.screws.filter((s) => s.number !== screw.number) });
            setGrip(null);
          }}
        />
      )}
      {pad && (
        <PadFields
          pad={pad}
          set={(next) => setPad(pad.number, next)}
          onRemove={() => {
            change({ pads: notes.pads.filter((p) => p.number !== pad.number) });
            setGrip(null);
          }}
        />
      )}
    </>
  );
}
