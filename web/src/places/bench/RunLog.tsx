import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { useRef, useState } from 'react';
import { ProblemError, type Problem, type Schemas } from '../../api/client';
import { capital, kelvin, partName, useTemperature } from '../../words/format';
import { Refusal } from '../../ui/Refusal';
import { spread } from './spread';
import { say } from '../../words/message';

type Log = Schemas['RunLogAnswer'];

/** A run taken from a sensor log: the samples with the fitted curve, and what it settles at. */
export function RunLog({ onTake }: { onTake: (log: Log) => void }) {
  const picker = useRef<HTMLInputElement>(null);
  const [log, setLog] = useState<Log | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const [busy, setBusy] = useState(false);

  const read = async (file: File) => {
    setBusy(true);
    setError(null);
    try {
      const answer = await fetch('/api/v1/runs/log', {
        method: 'POST',
        headers: { 'Content-Type': 'text/csv' },
        body: file,
      });
      const body: unknown = await answer.json();
      if (!answer.ok) throw new ProblemError(body as Problem);
      setLog(body as Log);
      onTake(body as Log);
    } catch (e) {
      setLog(null);
      setError(e instanceof ProblemError ? e : new ProblemError({ detail: t`The log could not be sent.` }));
    } finally {
      setBusy(false);
    }
  };

  return (
    <>
      <Button disabled={busy} onClick={() => picker.current?.click()}>
        {t`Read a sensor log`}
      </Button>
      <input
        ref={picker}
        type="file"
        accept=".csv,.gz,text/csv"
        hidden
        aria-label={t`Sensor log`}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) void read(file);
        }}
      />
      {error && <Refusal error={error} />}
      {log && <Curves log={log} />}
    </>
  );
}

const WIDTH = 380;
const HEIGHT = 180;
const EDGE = { left: 30, right: 122, top: 12, bottom: 28 };

/** The samples of a run with the fitted curve. */
export function Curves({ log }: { log: Log }) {
  const { exact, fromCelsius, unit } = useTemperature();
  const temperatures = log.parts.flatMap((p) => [p.settledCelsius, ...p.curve.map((c) => c.celsius)]);
  const x = scaleLinear([0, log.minutes], [EDGE.left, WIDTH - EDGE.right]);
  const y = scaleLinear(
    [Math.min(...temperatures) - 2, Math.max(...temperatures) + 2],
    [HEIGHT - EDGE.bottom, EDGE.top],
  );
  const path = (points: readonly Schemas['CurvePoint'][]) =>
    line<Schemas['CurvePoint']>(
      (c) => x(c.minute),
      (c) => y(c.fitted),
    )([...points]) ?? '';
  const labels = spread(log.parts.map((p) => ({ part: p.part, at: y(p.settledCelsius) })));
  return (
    <figure className="run-log" aria-label={t`Sensor log`}>
      <svg
        viewBox={`0 0 ${String(WIDTH)} ${String(HEIGHT)}`}
        width="100%"
        className="block text-width"
        role="img"
        aria-label={log.parts
          .map((p) => t`${partName(p.part)} settles at ${exact(p.settledCelsius)}`)
          .join(', ')}
      >
        {y.ticks(4).map((tick) => (
          <g key={tick}>
            <path
              d={`M${String(EDGE.left)} ${String(y(tick))}H${String(WIDTH - EDGE.right)}`}
              stroke="var(--line)"
            />
            <text x={EDGE.left - 6} y={y(tick) + 4} textAnchor="end" fontSize={11} fill="var(--quiet)">
              {fromCelsius(tick)}
            </text>
          </g>
        ))}
        {x.ticks(4).map((tick) => (
          <text key={tick} x={x(tick)} y={HEIGHT - 9} textAnchor="middle" fontSize={11} fill="var(--quiet)">
            {tick}
          </text>
        ))}
        <text x={WIDTH - EDGE.right + 14} y={HEIGHT - 9} fontSize={11} fill="var(--quiet)">
          {t`minutes, °${unit}`}
        </text>
        {log.parts.map((p) => (
          <g key={p.part}>
            {p.curve.map((c) => (
              <circle key={c.minute} cx={x(c.minute)} cy={y(c.celsius)} r={1.4} fill="var(--quiet)" />
            ))}
            <path d={path(p.curve)} fill="none" stroke="var(--ink)" strokeWidth={1.6} />
            <path
              d={`M${String(x(log.minutes))} ${String(y(p.settledCelsius))}h10`}
              stroke="var(--ink)"
              strokeDasharray="2 2"
            />
            <text x={x(log.minutes) + 14} y={(labels.get(p.part) ?? 0) + 4} fontSize={12} fill="var(--ink)">
              {partName(p.part)} {exact(p.settledCelsius)}
            </text>
          </g>
        ))}
      </svg>
      <figcaption className="small">
        {log.parts.map((p) => (
          <div key={p.part}>
            {t`${capital(partName(p.part))}: settles at ${exact(p.settledCelsius)} ± ${kelvin(p.uncertaintyKelvin)}, time constant ${p.timeConstantMinutes.toLocaleString()} min`}
            {p.fastConstantMinutes !== null &&
              t` (the chip itself ${(p.fastConstantMinutes * 60).toFixed(0)} s)`}
            {t`, ${Math.round(p.shareReached * 100)} % of the rise reached, hottest ${exact(p.maximumCelsius)}${p.settled ? '.' : t`, not settled.`}`}
          </div>
        ))}
        {log.messages.map(say).map((s) => (
          <div key={s} role="status">
            <strong>{capital(s)}</strong>
          </div>
        ))}
      </figcaption>
    </figure>
  );
}
