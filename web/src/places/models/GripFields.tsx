import { t } from '@lingui/core/macro';
import { Button, Input, Segmented, Select } from 'antd';
import type { Schemas } from '../../api/client';
import { SCREW_PLACES } from '../../words/work';
import { Num } from './Num';

type Screw = Schemas['Screw'];
type Pad = Schemas['PadNote'];

const PLACES: readonly Schemas['ScrewPlace'][] = ['cover', 'shroud', 'fan', 'back-plate', 'cooler', 'board'];

/** What has to be known of a screw. */
export function ScrewFields({
  screw,
  set,
  onRemove,
}: {
  screw: Screw;
  set: (next: Partial<Screw>) => void;
  onRemove: () => void;
}) {
  return (
    <fieldset className="notes-row">
      <legend>{t`Screw ${screw.number}`}</legend>
      <Select
        aria-label={t`Where it sits`}
        value={screw.place}
        options={PLACES.map((p) => ({ value: p, label: SCREW_PLACES[p] }))}
        onChange={(place) => set({ place })}
        style={{ width: 120 }}
      />
      <Num label="x, mm" value={screw.xMm} onChange={(xMm) => set({ xMm })} />
      <Num label="y, mm" value={screw.yMm} onChange={(yMm) => set({ yMm })} />
      <Num label={t`length, mm`} value={screw.lengthMm} onChange={(lengthMm) => set({ lengthMm })} />
      <label>
        {t`bit`}{' '}
        <Input
          value={screw.driver}
          maxLength={40}
          onChange={(e) => set({ driver: e.target.value })}
          style={{ width: 80 }}
        />
      </label>
      <Num
        label={t`maker’s number`}
        value={screw.order ?? null}
        onChange={(order) => set({ order })}
        onClear={() => set({ order: null })}
      />
      {screw.place === 'cooler' && (
        <Num
          label={t`plate`}
          value={screw.plate ?? null}
          onChange={(plate) => set({ plate: Math.max(1, Math.round(plate)) })}
          onClear={() => set({ plate: null })}
        />
      )}
      <Button onClick={onRemove}>{t`Take it out`}</Button>
    </fieldset>
  );
}

/** What has to be known of a pad. */
export function PadFields({
  pad,
  set,
  onRemove,
}: {
  pad: Pad;
  set: (next: Partial<Pad>) => void;
  onRemove: () => void;
}) {
  return (
    <fieldset className="notes-row">
      <legend>{t`Pad ${pad.number}`}</legend>
      <label>
        {t`serves`}{' '}
        <Input
          value={pad.part}
          maxLength={40}
          onChange={(e) => set({ part: e.target.value })}
          style={{ width: 110 }}
        />
      </label>
      <Num label="x, mm" value={pad.xMm} onChange={(xMm) => set({ xMm })} />
      <Num label="y, mm" value={pad.yMm} onChange={(yMm) => set({ yMm })} />
      <Num label={t`width, mm`} value={pad.widthMm} onChange={(widthMm) => set({ widthMm })} />
      <Num label={t`height, mm`} value={pad.heightMm} onChange={(heightMm) => set({ heightMm })} />
      <Num
        label={t`thickness, mm`}
        value={pad.thicknessMm}
        onChange={(thicknessMm) => set({ thicknessMm })}
      />
      <Num
        label={t`as measured, mm`}
        value={pad.measuredMm ?? null}
        onChange={(measuredMm) => set({ measuredMm })}
        onClear={() => set({ measuredMm: null })}
      />
      <Segmented
        aria-label={t`Side of the board`}
        value={pad.side ?? 'front'}
        onChange={(side) => set({ side: side as Schemas['PadSide'] })}
        options={[
          { value: 'front', label: t`front` },
          { value: 'back', label: t`back` },
        ]}
      />
      <Button onClick={onRemove}>{t`Take it out`}</Button>
    </fieldset>
  );
}
