import { scaleLinear, scaleTime } from 'd3-scale';
import { line } from 'd3-shape';
import type { Schemas } from '../../api/client';
import { kelvin, parseDay, partName } from '../../words/format';
import { CHART, FORECAST_DAYS } from './chart';

const HEIGHT = 118;
const DAY = 86_400_000;

/** A median absolute deviation times this is a standard deviation of normal scatter (Hampel 1974). */
const NORMAL = 1.4826;

/**
 * What the model leaves over: observed less room less fitted wear, with the steps that were found, the services, and the
 * room beside it. A model that is right leaves a level band here; a drift in it is what nobody has explained.
 */
export function ResidualChart({
  part,
  services,
  steps,
  asOf,
}: {
  part: Schemas['PartAnswer'];
  services: readonly Schemas['ServiceEntry'][];
  steps: readonly Schemas['StepChange'][];
  asOf: string;
}) {
  const points = part.history.map((h) => ({
    time: new Date(h.at),
    left: h.observed - h.room - h.model,
    room: h.room,
  }));
  if (points.length < 5) return null;
  const sigma = scatter(points.map((p) => p.left));
  const reach = Math.max(3, 3 * sigma, ...points.map((p) => Math.max(Math.abs(p.left), Math.abs(p.room))));
  const first = points[0]!.time;
  const until = new Date(parseDay(asOf).getTime() + FORECAST_DAYS * DAY);
  const x = scaleTime([first, until], [CHART.left, CHART.width - CHART.right]);
  const y = scaleLinear([-reach, reach], [HEIGHT - 16, 10]);
  const room = line<(typeof points)[number]>(
    (p) => x(p.time),
    (p) => y(p.room),
  )(points);
  const outside = points.filter((p) => Math.abs(p.left) > 2 * sigma).length;
  const shown = (at: Date) => at >= first && at <= until;
  return (
    <figure style={{ margin: '6px 0 0' }}>
      <svg
        viewBox={`0 0 ${String(CHART.width)} ${String(HEIGHT)}`}
        width="100%"
        role="img"
        aria-label={`What the model leaves over on the ${partName(part.part)}: usually within ${kelvin(2 * sigma)}, ${String(outside)} of ${String(points.length)} points beyond`}
      >
        <rect
          x={CHART.left}
          y={y(2 * sigma)}
          width={CHART.width - CHART.left - CHART.right}
          height={y(-2 * sigma) - y(2 * sigma)}
          fill="var(--track)"
          opacity={0.6}
        />
        {[-reach, 0, reach].map((tick) => (
          <text
            key={tick}
            x={CHART.left - 7}
            y={y(tick) + 4}
            textAnchor="end"
            fontSize={11}
            className="figures"
            fill="var(--quiet)"
          >
            {Math.round(tick)}
          </text>
        ))}
        <path
          d={`M${String(CHART.left)} ${String(y(0))}H${String(CHART.width - CHART.right)}`}
          stroke="var(--stone)"
        />
        {room && <path d={room} fill="none" stroke="var(--stone)" strokeWidth={1.6} strokeDasharray="1 3" />}
        {points.map((p) => (
          <circle
            key={p.time.getTime()}
            cx={x(p.time)}
            cy={y(p.left)}
            r={Math.abs(p.left) > 2 * sigma ? 3 : 1.9}
            fill={Math.abs(p.left) > 2 * sigma ? 'var(--ink)' : 'var(--quiet)'}
          />
        ))}
        {services
          .filter((s) => s.voidedReason === null && shown(parseDay(s.date)))
          .map((s) => (
            <path
              key={`${s.date} ${s.level}`}
              d={`M${String(x(parseDay(s.date)))} 10V${String(HEIGHT - 16)}`}
              stroke="var(--ink)"
            />
          ))}
        {steps
          .filter((s) => s.part === part.part && shown(parseDay(s.date)))
          .map((s) => (
            <g key={`${s.date} ${s.kind}`}>
              <path
                d={`M${String(x(parseDay(s.date)))} 10V${String(HEIGHT - 16)}`}
                stroke="var(--ink)"
                strokeDasharray="4 3"
              />
              <text x={x(parseDay(s.date)) + 4} y={20} fontSize={11} fill="var(--ink)">
                {kelvin(s.kelvin)} step
              </text>
            </g>
          ))}
      </svg>
      <figcaption className="small quiet">
        What the fit leaves over, K: usually within ±{kelvin(2 * sigma)} (band). Dotted: the room. Solid
        lines: services; dashed: steps that were found.
      </figcaption>
    </figure>
  );
}

function scatter(values: readonly number[]): number {
  const median = (v: readonly number[]) => {
    const sorted = v.toSorted((a, b) => a - b);
    return (sorted[Math.floor((v.length - 1) / 2)]! + sorted[Math.floor(v.length / 2)]!) / 2;
  };
  const middle = median(values);
  return Math.max(0.3, NORMAL * median(values.map((v) => Math.abs(v - middle))));
}
