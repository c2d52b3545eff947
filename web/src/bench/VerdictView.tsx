import type { Schemas } from '../api/client';
import { capital, kelvin, partName } from '../lib/format';

type Verdict = Schemas['VerdictAnswer'];

const HEADLINES: Record<Verdict['outcome'], string> = {
  improved: 'Improved, beyond doubt.',
  'no-change': 'No change.',
  worse: 'Worse than before.',
  'not-comparable': 'These two runs cannot be compared.',
};

const WIDTH = 400;
const ROW = 46;

/** What the job proved: each part's change with its uncertainty, why, and what to do next. */
export function VerdictView({ verdict, small = false }: { verdict: Verdict; small?: boolean }) {
  const reach =
    Math.max(6, ...verdict.parts.map((p) => Math.abs(p.changeKelvin) + p.uncertaintyKelvin)) * 1.1;
  const x = (value: number) => WIDTH / 2 + (value / reach) * (WIDTH / 2 - 14);
  return (
    <section aria-label="Verdict">
      {small ? (
        <p>
          <strong>{HEADLINES[verdict.outcome]}</strong>
        </p>
      ) : (
        <h1>{HEADLINES[verdict.outcome]}</h1>
      )}
      {verdict.parts.length > 0 && (
        <svg
          className="verdict-bars"
          viewBox={`0 0 ${String(WIDTH)} ${String(ROW * verdict.parts.length + 24)}`}
          role="img"
          aria-label={verdict.parts
            .map(
              (p) =>
                `${partName(p.part)} ${kelvin(p.changeKelvin)} ± ${kelvin(p.uncertaintyKelvin)}, ${p.outcome}`,
            )
            .join('; ')}
        >
          <path
            d={`M${String(x(0))} 0V${String(ROW * verdict.parts.length)}`}
            stroke="var(--ink)"
            strokeDasharray="3 3"
          />
          <text
            x={x(0)}
            y={ROW * verdict.parts.length + 16}
            fontSize={12}
            textAnchor="middle"
            fill="var(--quiet)"
          >
            as before
          </text>
          <text x={4} y={ROW * verdict.parts.length + 16} fontSize={12} fill="var(--quiet)">
            ← cooler
          </text>
          <text
            x={WIDTH - 4}
            y={ROW * verdict.parts.length + 16}
            fontSize={12}
            textAnchor="end"
            fill="var(--quiet)"
          >
            warmer →
          </text>
          {verdict.parts.map((p, i) => {
            const y = i * ROW + 28;
            return (
              <g key={p.part}>
                <text x={4} y={y - 12} fontSize={13.5} fontWeight={650} fill="var(--ink)">
                  {capital(partName(p.part))}
                </text>
                <text
                  x={WIDTH - 4}
                  y={y - 12}
                  fontSize={13.5}
                  textAnchor="end"
                  className="figures"
                  fill="var(--ink)"
                >
                  {kelvin(p.changeKelvin)} ± {kelvin(p.uncertaintyKelvin)}
                </text>
                <path
                  d={`M${String(x(p.changeKelvin - p.uncertaintyKelvin))} ${String(y)}H${String(x(p.changeKelvin + p.uncertaintyKelvin))}`}
                  stroke="var(--stone)"
                  strokeWidth={9}
                />
                <circle cx={x(p.changeKelvin)} cy={y} r={6} fill="var(--ink)" />
              </g>
            );
          })}
        </svg>
      )}
      {verdict.reasons.length > 0 && (
        <>
          <h2>What was minded</h2>
          <ul style={{ paddingLeft: 18, margin: '4px 0 12px' }}>
            {verdict.reasons.map((r) => (
              <li key={r.code + r.message}>{r.message}</li>
            ))}
          </ul>
        </>
      )}
      {verdict.advice.length > 0 && (
        <>
          <h2>What now</h2>
          <ul style={{ paddingLeft: 18, margin: '4px 0 12px' }}>
            {verdict.advice.map((a) => (
              <li key={a}>{a}</li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
