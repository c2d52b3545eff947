import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { NumberField } from '../../ui/NumberField';
import { PlainTable } from '../../ui/PlainTable';
import { Refusal } from '../../ui/Refusal';
import { usePageTitle } from '../../ui/usePageTitle';
import { mm } from '../../words/amounts';
import { kelvin } from '../../words/format';
import { say } from '../../words/message';
import { PAD_CODES } from '../../words/pads';
import './stores.css';

type Reading = Schemas['GapReading'];

interface Place {
  name: string;
  by: Reading;
  measuredMm: number | null;
  watts: number | null;
  oldConductivity: number | null;
}

const READINGS: Record<Reading, string> = {
  imprint: t`old pad where it was pressed`,
  gap: t`the gap itself`,
  edge: t`old pad at an edge nothing pressed`,
};

const first = (name: string): Place => ({
  name,
  by: 'imprint',
  measuredMm: null,
  watts: null,
  oldConductivity: null,
});

/** Which pad goes where on a cooler, from what was measured: the exact one, a thinner one that still touches, never a thicker. */
export function WhichPad() {
  usePageTitle(t`Which pad?`);
  const [places, setPlaces] = useState<readonly Place[]>([first(t`memory`)]);
  const asked = places.filter((p) => p.measuredMm !== null && p.name.trim() !== '');
  const body = { places: asked.map((p) => ({ ...p, widthMm: null, heightMm: null })) };
  const advice = useQuery({
    queryKey: ['which-pad', body],
    queryFn: () => unwrap(api.POST('/api/v1/materials/pads', { body })),
    enabled: asked.length > 0,
    placeholderData: (before) => before,
    retry: false,
  });
  const change = (i: number, next: Partial<Place>) =>
    setPlaces(places.map((p, j) => (j === i ? { ...p, ...next } : p)));
  const answers = asked.length > 0 ? (advice.data?.places ?? []) : [];
  return (
    <div className="page broad">
      <p className="quiet no-gap">
        <Link to="/stores">{t`Stores`}</Link>
      </p>
      <h1>{t`Which pad?`}</h1>
      <p className="quiet text-width">
        {t`All places of one cooler together: a pad that is too thick in one of them lifts it off the others.`}
      </p>
      <PlainTable
        className="stores-pads"
        head={
          <>
            <th>{t`place`}</th>
            <th>{t`measured`}</th>
            <th>{t`at`}</th>
            <th>{t`heat of one part`}</th>
            <th>{t`old pads conduct`}</th>
          </>
        }
      >
        {places.map((p, i) => (
          <tr key={i}>
            <td>
              <Input
                aria-label={t`Place ${i + 1}`}
                value={p.name}
                maxLength={80}
                onChange={(e) => change(i, { name: e.target.value })}
              />
            </td>
            <td>
              <NumberField
                aria-label={t`Place ${i + 1}: measured, mm`}
                min={0.1}
                max={10}
                step={0.1}
                suffix="mm"
                value={p.measuredMm}
                onChange={(measuredMm) => change(i, { measuredMm })}
                style={{ width: 110 }}
              />
            </td>
            <td>
              <Select
                aria-label={t`Place ${i + 1}: measured at`}
                value={p.by}
                onChange={(by) => change(i, { by })}
                options={Object.entries(READINGS).map(([value, label]) => ({ value, label }))}
                popupMatchSelectWidth={false}
                style={{ minWidth: 210 }}
              />
            </td>
            <td>
              <NumberField
                aria-label={t`Place ${i + 1}: heat, W`}
                min={0}
                max={1000}
                suffix="W"
                value={p.watts}
                onChange={(watts) => change(i, { watts })}
                style={{ width: 100 }}
              />
            </td>
            <td>
              <NumberField
                aria-label={t`Place ${i + 1}: old pads, W/(m·K)`}
                min={0.1}
                max={100}
                suffix="W/(m·K)"
                value={p.oldConductivity}
                onChange={(oldConductivity) => change(i, { oldConductivity })}
                style={{ width: 140 }}
              />
            </td>
          </tr>
        ))}
      </PlainTable>
      <Button
        className="apart-small"
        onClick={() => setPlaces([...places, first('')])}
        disabled={places.length >= 12}
      >
        {t`Another place`}
      </Button>
      {advice.isError && <Refusal error={advice.error} />}
      {asked.length === 0 && <p className="apart">{t`Type what was measured, in millimetres.`}</p>}
      <div aria-live="polite" className="page-end">
        {answers.map((a, i) => (
          <section key={`${a.name} ${String(i)}`} className="apart text-width">
            <h2>
              {a.name}: {a.takeMm !== null ? mm(a.takeMm) : PAD_CODES[a.code]}
              {a.takeName !== null && <span className="light quiet"> · {a.takeName}</span>}
            </h2>
            <p className="no-gap">{say(a.says)}</p>
            <p className="quiet small">
              {t`Pads from ${mm(a.fromMm)} to ${mm(a.toMm)} are pressed by 10 to 30 %.`}{' '}
              {a.kelvin !== null && t`It costs its part ${kelvin(a.kelvin)}.`}{' '}
              {a.kelvin !== null &&
                a.oldKelvin !== null &&
                t`The old pads, pressed as much, cost ${kelvin(a.oldKelvin)}: ${kelvin(a.oldKelvin - a.kelvin)} to win.`}
            </p>
          </section>
        ))}
        {answers.length > 0 && advice.data?.mixed && (
          <p className="heavy text-width">{say(advice.data.mixed)}</p>
        )}
      </div>
    </div>
  );
}
