import { Button } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import type { BenchJob } from '../useBenchJob';
import { MATERIALS } from '../words';
import { NumberField } from '../../shell/NumberField';

type Kind = Schemas['MaterialKind'];

const THICKNESSES = [0.5, 1, 1.5, 2, 3];

/** Materials used and minutes, booked as they go. */
export function Used({ job, write }: BenchJob) {
  const [thickness, setThickness] = useState(job.notes.pads[0]?.thicknessMm ?? 1.5);
  const [minutes, setMinutes] = useState<number | null>(null);
  const started = Date.parse(job.startedAt);
  const sinceStart = Math.round((Date.parse(job.workDoneAt ?? new Date().toISOString()) - started) / 60_000);
  const amount = (kind: Kind) =>
    job.materials
      .filter((m) => m.material === kind && (kind !== 'pad-pieces' || m.thicknessMm === thickness))
      .reduce((sum, m) => sum + m.amount, 0);
  const use = (kind: Kind, by: number) =>
    void write({
      kind: 'material-used',
      material: kind,
      amount: by,
      thicknessMm: kind === 'pad-pieces' ? thickness : null,
    });
  return (
    <section className="section" aria-label="Materials and minutes">
      <div className="section-head">
        <h2>Materials and minutes</h2>
      </div>
      <div className="tray">
        {(Object.keys(MATERIALS) as Kind[]).map((kind) => {
          const { name, unit, step } = MATERIALS[kind];
          return (
            <div key={kind} className="tray-place">
              <div className="tray-name">
                {name}
                {kind === 'pad-pieces' && (
                  <span role="group" aria-label="Thickness of the pads, mm">
                    {THICKNESSES.map((t) => (
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
                  aria-label={`Less: ${name}`}
                  disabled={amount(kind) <= 0}
                  onClick={() => use(kind, -Math.min(step, amount(kind)))}
                >
                  −
                </Button>
                <span className="figures">
                  {Math.round(amount(kind) * 100) / 100} <span className="quiet">{unit}</span>
                </span>
                <Button aria-label={`More: ${name}`} onClick={() => use(kind, step)}>
                  +
                </Button>
              </div>
            </div>
          );
        })}
        <div className="tray-place">
          <div className="tray-name">
            Minutes <span className="quiet small">{sinceStart} since the start</span>
          </div>
          <div className="tray-count">
            <span className="figures">{Math.round(job.minutes * 10) / 10}</span>
            <NumberField
              aria-label="Minutes to book"
              min={-1440}
              max={1440}
              value={minutes}
              onChange={setMinutes}
              style={{ width: 100 }}
            />
            <Button
              disabled={!minutes}
              onClick={() =>
                void write({ kind: 'minutes-booked', minutes: minutes! }).then(() => setMinutes(null))
              }
            >
              Book
            </Button>
          </div>
        </div>
      </div>
    </section>
  );
}
