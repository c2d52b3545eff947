import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Select } from 'antd';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { useMachines } from '../../api/queries';
import { useStores } from '../../api/stores';
import { NumberField } from '../../ui/NumberField';
import { Refusal } from '../../ui/Refusal';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { amount } from '../../words/amounts';
import { kelvin, tenths, whole } from '../../words/format';
import { say } from '../../words/message';
import { Spreading } from './Spreading';
import './stores.css';

type Answer = Schemas['PasteForChipAnswer'];

/** How much paste a chip takes, what its layer costs, and how it spreads under the cooler. */
export function PasteFor() {
  usePageTitle(t`Paste for a chip`);
  const stores = useStores();
  const machines = useMachines();
  const [product, setProduct] = useState<string | null>(null);
  const [asset, setAsset] = useState<string | null>(null);
  const [chip, setChip] = useState({ width: 24, height: 24 });
  const [bondLine, setBondLine] = useState(50);
  const [watts, setWatts] = useState<number | null>(null);
  const [aluminium, setAluminium] = useState<'yes' | 'no' | 'unknown'>('unknown');
  const pastes = stores.data?.products.filter((p) => p.kind === 'paste') ?? [];
  const chosen = pastes.find((p) => p.code === product) ?? pastes[0];
  const body = {
    product: chosen?.code ?? '',
    asset,
    chipWidthMm: chip.width,
    chipHeightMm: chip.height,
    bondLineMicrometres: bondLine,
    watts,
    squeezeOut: null,
    aluminiumPlate: aluminium === 'unknown' ? null : aluminium === 'yes',
  };
  const answer = useQuery({
    queryKey: ['paste-for-chip', body],
    queryFn: () => unwrap(api.POST('/api/v1/materials/paste-for-chip', { body })),
    enabled: chosen !== undefined,
    placeholderData: (before) => before,
    retry: false,
  });
  if (!stores.data) return <Unready of={[stores]} title={t`Paste for a chip`} />;
  return (
    <div className="page">
      <p className="quiet no-gap">
        <Link to="/stores">{t`Stores`}</Link>
      </p>
      <h1>{answer.data ? headline(answer.data) : t`Paste for a chip`}</h1>
      {!chosen && (
        <p className="quiet">{t`Put a paste into the stores first, with its density and conductivity.`}</p>
      )}
      <div className="stores-ask">
        <Field label={t`Paste`}>
          <Select
            aria-label={t`Paste`}
            value={chosen?.code ?? null}
            onChange={setProduct}
            options={pastes.map((p) => ({ value: p.code, label: p.name }))}
          />
        </Field>
        <Field label={t`Machine: its own power and chip`}>
          <Select
            aria-label={t`Machine`}
            allowClear
            showSearch
            placeholder={t`none`}
            value={asset}
            onChange={(tag: string | undefined) => setAsset(tag ?? null)}
            options={(machines.data ?? [])
              .filter((m) => m.retiredOn === null)
              .map((m) => ({ value: m.tag, label: m.tag }))}
          />
        </Field>
        <Number
          label={t`Chip’s width, mm`}
          value={chip.width}
          onChange={(width) => setChip({ ...chip, width })}
        />
        <Number
          label={t`Chip’s height, mm`}
          value={chip.height}
          onChange={(height) => setChip({ ...chip, height })}
        />
        <Number label={t`Layer, µm`} value={bondLine} onChange={setBondLine} />
        <Field label={t`Power, W`}>
          <NumberField
            aria-label={t`Power, W`}
            placeholder={answer.data?.watts != null ? whole(answer.data.watts) : t`not known`}
            min={0}
            max={2000}
            value={watts}
            onChange={setWatts}
          />
        </Field>
        <Field label={t`Plate of aluminium?`}>
          <Select
            aria-label={t`Plate of aluminium?`}
            value={aluminium}
            onChange={setAluminium}
            options={[
              { value: 'unknown', label: t`nobody knows` },
              { value: 'yes', label: t`yes` },
              { value: 'no', label: t`no` },
            ]}
          />
        </Field>
      </div>
      {answer.isError && <Refusal error={answer.error} />}
      {answer.data && <Facts answer={answer.data} />}
      <Spreading
        chip={chip}
        volumeMm3={answer.data?.volumeMm3 ?? null}
        viscosity={chosen?.facts.viscosity ?? 'medium'}
      />
    </div>
  );
}

function headline(a: Answer): string {
  if (a.kelvin === null) return a.grams === null ? t`Paste for a chip` : t`${amount(a.grams, 'g')} of paste.`;
  return a.grams === null
    ? t`The layer costs ${kelvin(a.kelvin)}.`
    : t`${amount(a.grams, 'g')} of paste; its layer costs ${kelvin(a.kelvin)}.`;
}

function Facts({ answer: a }: { answer: Answer }) {
  return (
    <div className="stores-answer text-width">
      {a.cautions.map((c) => (
        <p key={c.says.template} className={c.forbids ? 'heavy' : undefined}>
          {c.forbids ? t`Not here:` : t`Mind:`} {say(c.says)}
        </p>
      ))}
      {a.usesLeft !== null && a.shareOfPack !== null && (
        <p>
          {t`That is ${tenths(a.shareOfPack * 100)} % of a pack, with what squeezes out; what is on the shelf does for ${whole(Math.floor(a.usesLeft))} such chips.`}
        </p>
      )}
      {a.kelvin !== null && a.watts !== null && (
        <p>
          {a.wattsMeasured ? t`At the machine’s own ${whole(a.watts)} W.` : t`At ${whole(a.watts)} W.`}{' '}
          {a.bareTenthKelvin !== null && t`A tenth left bare costs ${kelvin(a.bareTenthKelvin)} more.`}{' '}
          {a.better
            ? t`${a.better.name}, which conducts best of those that may be used here, would win ${kelvin(a.better.winsKelvin)}.`
            : t`No paste of the stores that may be used here conducts better.`}
        </p>
      )}
      {a.missing.map((m) => (
        <p key={m.template} className="quiet">
          {say(m)}
        </p>
      ))}
    </div>
  );
}

function Field({ label, children }: { label: string; children: ReactNode }) {
  return (
    <label>
      {label}
      {children}
    </label>
  );
}

function Number({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number;
  onChange: (value: number) => void;
}) {
  return (
    <Field label={label}>
      <NumberField aria-label={label} min={1} value={value} onChange={(v) => v !== null && onChange(v)} />
    </Field>
  );
}
