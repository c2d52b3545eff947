import { t } from '@lingui/core/macro';
import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../../api/client';
import { NumberField } from '../../../ui/NumberField';
import type { BenchJob } from '../useBenchJob';
import { PATTERNS, PRODUCTS } from '../../../words/work';
import { USED_AT } from './method';
import { LotChoice } from './LotChoice';
import { PadHint } from './PadHint';
import { PastePicture } from '../../../ui/PastePicture';
import { MaterialRow } from './Used';

type Product = Schemas['ProductKind'];

/** The method kept where it is used: which paste, pads, alcohol, how laid on, how much; old pads by their place. */
export function Method({ job, write, step }: BenchJob & { step: string }) {
  const putty = step === 'pads-on' && job.schools.pads === 'putty';
  const used = USED_AT[step];
  // The house's way, else the model's own.
  const pattern = job.schools.paste === 'by-model' ? job.notes.pattern : job.schools.paste;
  if (step === 'pads-off') return <PadsMeasured job={job} write={write} />;
  if (!used) return null;
  return (
    <section aria-label={t`Used at this step`} className="method">
      {step === 'paste-on' && pattern && (
        <p className="paste-shown">
          <PastePicture
            pattern={pattern}
            lidded={job.notes.chip == null ? null : job.notes.chip === 'lidded'}
          />
          {t`Laid on as ${PATTERNS[pattern]}, before the cooler is set down.`}
        </p>
      )}
      {(putty ? (['putty'] as const) : used.products).map((product) => (
        <ProductRow key={product} job={job} write={write} product={product} />
      ))}
      <div className="tray">
        {(putty ? (['putty-grams'] as const) : used.materials).map((material) => (
          <MaterialRow key={material} job={job} write={write} kind={material} />
        ))}
      </div>
    </section>
  );
}

/** Name and batch of a product; what this device used last is offered. */
function ProductRow({ job, write, product }: BenchJob & { product: Product }) {
  const said = job.products.find((p) => p.product === product);
  const key = `pyrometron.product.${product}`;
  const last = localStorage.getItem(key);
  const [name, setName] = useState(said?.name ?? '');
  const [batch, setBatch] = useState(said?.batch ?? '');
  const [pattern, setPattern] = useState<Schemas['PastePattern'] | null>(said?.pattern ?? null);
  const keep = (next: { name?: string; batch?: string; pattern?: Schemas['PastePattern'] | null } = {}) => {
    const value = { name: name.trim(), batch: batch.trim(), pattern, ...next };
    if (value.name === '') return;
    if (
      value.name === said?.name &&
      value.batch === (said.batch ?? '') &&
      value.pattern === (said.pattern ?? null)
    )
      return;
    localStorage.setItem(key, value.name);
    // Typed by hand it is no lot of the stores any more, unless only the pattern changed.
    const same = value.name === said?.name && value.batch === (said.batch ?? '');
    void write({
      kind: 'product-used',
      product,
      name: value.name,
      batch: value.batch || null,
      pattern: value.pattern,
      lot: same ? (said.lot ?? null) : null,
      expiredBecause: same ? (said.expiredBecause ?? null) : null,
    });
  };
  return (
    <div className="method-row">
      <LotChoice
        job={job}
        product={product}
        chosen={said?.lot ?? null}
        onChoose={async (lot, expiredBecause) => {
          setName(lot.productName);
          setBatch(lot.batch ?? '');
          await write({
            kind: 'product-used',
            product,
            name: lot.productName,
            batch: lot.batch,
            pattern,
            lot: lot.id,
            expiredBecause,
          });
        }}
      />
      <label>
        {PRODUCTS[product]}
        <Input
          aria-label={t`${PRODUCTS[product]}, name`}
          placeholder={t`name on its label`}
          value={name}
          maxLength={80}
          onChange={(e) => setName(e.target.value)}
          onBlur={() => keep()}
        />
      </label>
      <label>
        {t`Batch`}
        <Input
          aria-label={t`${PRODUCTS[product]}, batch`}
          placeholder={t`where it has one`}
          value={batch}
          maxLength={80}
          onChange={(e) => setBatch(e.target.value)}
          onBlur={() => keep()}
        />
      </label>
      {product === 'paste' && (
        <label>
          {t`Laid on as`}
          <Select
            aria-label={t`Paste pattern`}
            allowClear
            value={pattern ?? undefined}
            placeholder={t`as the card says`}
            className="full"
            options={Object.entries(PATTERNS).map(([value, label]) => ({ value, label }))}
            onChange={(v: Schemas['PastePattern'] | undefined) => {
              setPattern(v ?? null);
              keep({ pattern: v ?? null });
            }}
          />
        </label>
      )}
      {!said && last && name === '' && (
        <Button
          onClick={() => {
            setName(last);
            keep({ name: last });
          }}
        >
          {t`${last}, as last time`}
        </Button>
      )}
    </div>
  );
}

/** Old pads, each with its thickness as measured beside the nominal one. */
function PadsMeasured({ job, write }: BenchJob) {
  const [place, setPlace] = useState('');
  const isSaid = (at: string) => job.padsMeasured.some((m) => m.place === at);
  const noted = job.notes.pads.map((p) => ({
    place: `${String(p.number)} · ${p.part}${p.side === 'back' ? t`, back` : ''}`,
    pad: p.number,
    nominal: p.thicknessMm,
  }));
  const others = job.padsMeasured
    .filter((m) => !noted.some((n) => n.place === m.place))
    .map((m) => ({ place: m.place, pad: m.pad ?? null, nominal: m.nominalMm ?? null }));
  // Pads of one part are mostly alike: one measured, the others by one tap.
  const first = job.padsMeasured.find((m) => m.pad);
  const part = job.notes.pads.find((p) => p.number === first?.pad)?.part;
  const alike = noted.filter(
    (n) =>
      job.notes.pads.find((p) => p.number === n.pad)?.part === part &&
      !job.padsMeasured.some((m) => m.place === n.place),
  );
  const sameForAll = async () => {
    for (const n of alike)
      await write({
        kind: 'pad-measured',
        place: n.place,
        measuredMm: first!.measuredMm,
        nominalMm: n.nominal,
        pad: n.pad,
        by: first!.by ?? null,
      });
  };
  return (
    <section aria-label={t`Old pads`} className="method">
      <p className="quiet small">{t`As measured, and nominal: what it is sold as.`}</p>
      <div className="tray">
        {[...noted, ...others].map((p) => (
          <PadRow key={`${p.place} ${String(isSaid(p.place))}`} job={job} write={write} {...p} />
        ))}
        <div className="tray-place">
          <div className="tray-name quiet">{t`Another place`}</div>
          <div className="tray-count">
            <Input
              aria-label={t`Place of the pad`}
              placeholder={t`memory, back`}
              maxLength={80}
              value={place}
              onChange={(e) => setPlace(e.target.value)}
            />
            {place.trim() !== '' && (
              <PadRow
                key={place}
                job={job}
                write={write}
                place={place.trim()}
                pad={null}
                nominal={null}
                bare
                onKept={() => setPlace('')}
              />
            )}
          </div>
        </div>
      </div>
      {first && alike.length > 0 && (
        <Button className="bench-wide" onClick={() => void sameForAll()}>
          {t`The other ${part ?? ''} pads measure ${first.measuredMm} mm too`}
        </Button>
      )}
    </section>
  );
}

function PadRow({
  job,
  write,
  place,
  pad,
  nominal,
  bare = false,
  onKept,
}: BenchJob & {
  place: string;
  pad: number | null;
  nominal: number | null;
  bare?: boolean;
  onKept?: () => void;
}) {
  const said = job.padsMeasured.find((m) => m.place === place);
  const [measured, setMeasured] = useState<number | null>(said?.measuredMm ?? null);
  const [sold, setSold] = useState<number | null>(said?.nominalMm ?? nominal);
  const keep = () => {
    if (measured === null || (measured === said?.measuredMm && sold === (said.nominalMm ?? null))) return;
    void write({ kind: 'pad-measured', place, measuredMm: measured, nominalMm: sold, pad, by: null }).then(
      onKept,
    );
  };
  const fields = (
    <>
      <NumberField
        aria-label={t`${place}: measured, mm`}
        placeholder={t`measured`}
        min={0.1}
        max={10}
        step={0.1}
        value={measured}
        onChange={setMeasured}
        onBlur={keep}
        suffix="mm"
        style={{ width: 120 }}
      />
      <NumberField
        aria-label={t`${place}: nominal, mm`}
        placeholder={t`nominal`}
        min={0.2}
        max={10}
        step={0.25}
        value={sold}
        onChange={setSold}
        onBlur={keep}
        suffix="mm"
        style={{ width: 120 }}
      />
      {bare && (
        <Button disabled={measured === null} onClick={keep}>
          {t`Add`}
        </Button>
      )}
    </>
  );
  return bare ? (
    fields
  ) : (
    <div className="tray-place">
      <div className="tray-name">
        {place}
        {nominal !== null && <span className="quiet small"> {t`nominal ${nominal} mm`}</span>}
        {said && <PadHint place={place} measuredMm={said.measuredMm} />}
      </div>
      <div className="tray-count">{fields}</div>
    </div>
  );
}
