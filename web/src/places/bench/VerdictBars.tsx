import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { capital, kelvin, partName } from '../../words/format';
import { word } from '../../words/word';

const WIDTH = 400;
const ROW = 46;

/** Each part's change with its uncertainty, about "as before". */
export function VerdictBars({ parts }: { parts: readonly Schemas['PartVerdict'][] }) {
  const reach = Math.max(6, ...parts.map((p) => Math.abs(p.changeKelvin) + p.uncertaintyKelvin)) * 1.1;
  const x = (value: number) => WIDTH / 2 + (value / reach) * (WIDTH / 2 - 14);
  return (
    <svg
      className="verdict-bars"
      viewBox={`0 0 ${String(WIDTH)} ${String(ROW * parts.length + 24)}`}
      role="img"
      aria-label={parts
        .map(
          (p) =>
            `${partName(p.part)} ${kelvin(p.changeKelvin)} ± ${kelvin(p.uncertaintyKelvin)}, ${word(p.outcome)}`,
        )
        .join('; ')}
    >
      <path
        d={`M${String(x(0))} 0V${String(ROW * parts.length)}`}
        stroke="var(--ink)"
        strokeDasharray="3 3"
      />
      <text x={x(0)} y={ROW * parts.length + 16} fontSize={12} textAnchor="middle" fill="var(--quiet)">
        {t`as before`}
      </text>
      <text x={4} y={ROW * parts.length + 16} fontSize={12} fill="var(--quiet)">
        {t`← cooler`}
      </text>
      <text x={WIDTH - 4} y={ROW * parts.length + 16} fontSize={12} textAnchor="end" fill="var(--quiet)">
        {t`warmer →`}
      </text>
      {parts.map((p, i) => {
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
  );
}
