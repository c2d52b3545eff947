import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Button, Input } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../../api/client';
import type { BenchJob } from '../useBenchJob';
import { MATERIALS, PATTERNS, PRODUCTS } from '../../../words/work';
import { NumberField } from '../../../ui/NumberField';

type Kind = Schemas['MaterialKind'];

const THICKNESSES = [0.5, 1, 1.5, 2, 3];

/** Materials used and minutes, booked as they go; products and tools as they were named. */
export function Used({ job, write }: BenchJob) {
  return (
    <section className="section" aria-label={t`Materials and minutes`}>
      <div className="section-head">
        <h2>{t`Materials and minutes`}</h2>
      </div>
      {job.products.length > 0 && <p>{job.products.map(productWords).join('; ')}.</p>}
      <div className="tray">
        {(Object.keys(MATERIALS) as Kind[]).map((kind) => (
          <MaterialRow key={kind} job={job} write={write} kind={kind} />
        ))}
        <BookMinutes job={job} write={write} />
        <Tools job={job} write={write} />
      </div>
    </section>
  );
}

/** A product with what was said of it. */
export const productWords = (p: Schemas['ProductUsed']): string =>
  [
    `${PRODUCTS[p.product]} ${p.name}`,
    p.batch ? t`batch ${p.batch}` : null,
    p.pattern ? t`laid on as ${PATTERNS[p.pattern]}` : null,
  ]
    .filter(Boolean)
    .join(', ');

/** One material: less, how much so far, more. */
export function MaterialRow({ job, write, kind }: BenchJob & { kind: Kind }) {
  const [thickness, setThickness] = useState(job.notes.pads[0]?.thicknessMm ?? 1.5);
  const { name, unit, step } = MATERIALS[kind];
  const isPads = kind === 'pad-pieces';
  const amount = job.materials
    .filter((m) => m.material === kind && (!isPads || m.thicknessMm === thickness))
    .reduce((sum, m) => sum + m.amount, 0);
  const use = (by: number) =>
    void write({
      kind: 'material-used',
      material: kind,
      amount: by,
      thicknessMm: isPads ? thickness : null,
    });
  return (
    <div className="tray-place">
      <div className="tray-name">
        {name}
        {isPads && (
          <span role="group" aria-label={t`Thickness of the pads, mm`}>
            {[...new Set([...THICKNESSES, ...job.notes.pads.map((p) => p.thicknessMm)])]
              .sort((a, b) => a - b)
              .map((t) => (
                <Button
                  key={t}
                  size="small"
                  type={t === thickness ? 'primary' : 'text'}
                  aria-pressed={t === thickness}
                  onClick={() => setThickness(t)}
                >
                  {t.toFixed(1)}
                </Button>
              ))}
          </span>
        )}
      </div>
      <div className="tray-count">
        <Button
          aria-label={t`Less: ${name}`}
          disabled={amount <= 0}
          onClick={() => use(-Math.min(step, amount))}
        >
          −
        </Button>
        <span className="figures">
          {Math.round(amount * 100) / 100} <span className="quiet">{unit}</span>
        </span>
        <Button aria-label={t`More: ${name}`} onClick={() => use(step)}>
          +
        </Button>
      </div>
    </div>
  );
}

/** Minutes at the bench; the time since the start is offered. */
export function BookMinutes({ job, write }: BenchJob) {
  const [minutes, setMinutes] = useState<number | null>(null);
  const started = Date.parse(job.startedAt);
  const sinceStart = Math.round((Date.parse(job.workDoneAt ?? new Date().toISOString()) - started) / 60_000);
  const book = (by: number) =>
    void write({ kind: 'minutes-booked', minutes: by }).then(() => setMinutes(null));
  return (
    <div className="tray-place">
      <div className="tray-name">
        {t`Minutes`}{' '}
        {sinceStart >= 1 && sinceStart <= 1440 && job.minutes === 0 ? (
          <Button size="small" onClick={() => book(sinceStart)}>
            {t`Book the ${sinceStart} since the start`}
          </Button>
        ) : (
          <span className="quiet small">{t`${sinceStart} since the start`}</span>
        )}
      </div>
      <div className="tray-count">
        <span className="figures">{Math.round(job.minutes * 10) / 10}</span>
        <NumberField
          aria-label={t`Minutes to book`}
          min={-1440}
          max={1440}
          value={minutes}
          onChange={setMinutes}
          style={{ width: 100 }}
        />
        <Button disabled={!minutes} onClick={() => book(minutes!)}>
          {t`Book`}
        </Button>
      </div>
    </div>
  );
}

/** Tools that this model asks for beyond the usual ones; its notes keep them. */
function Tools({ job, write }: BenchJob) {
  const [tool, setTool] = useState('');
  const known = [...new Set([...(job.notes.tools ?? []), ...job.tools])];
  return (
    <div className="tray-place">
      <div className="tray-name">
        <Trans>
          Tools of its own{' '}
          <span className="quiet small">{known.length > 0 ? known.join(', ') : t`none noted`}</span>
        </Trans>
      </div>
      <div className="tray-count">
        <Input
          aria-label={t`Tool`}
          placeholder={t`spudger, long PH0`}
          value={tool}
          maxLength={80}
          onChange={(e) => setTool(e.target.value)}
        />
        <Button
          disabled={tool.trim() === ''}
          onClick={() => void write({ kind: 'tool-used', tool: tool.trim() }).then(() => setTool(''))}
        >
          {t`Note`}
        </Button>
      </div>
    </div>
  );
}
