import { scaleLinear, scaleTime } from 'd3-scale';
import { area, curveMonotoneX, line } from 'd3-shape';
import { useMemo, useState } from 'react';
import type { Schemas } from '../../api/client';
import { fullDay, instant, kelvin, parseDay, partName } from '../../words/format';
import { heat } from '../../theme/heat';
import { CHART, FORECAST_DAYS } from './chart';

const WIDTH = CHART.width;
const HEIGHT = 268;
const EDGE = { left: CHART.left, right: CHART.right, top: 26, bottom: 26 };
const DAY = 86_400_000;

interface Mark {
  at: Date;
  text: string;
  struck: boolean;
}

/**
 * A part's rise over the air through time, brought to one operating point: what was observed, the fitted wear, the room
 * taken out, services as marks, and the forecast as a band.
 */
export function DriftChart({
  part,
  services,
  asOf,
}: {
  part: Schemas['PartAnswer'];
  services: readonly Schemas['ServiceEntry'][];
  asOf: string;
}) {
  const [at, setAt] = useState<number | null>(null);
  const points = useMemo(() => part.history.map((h) => ({ ...h, time: new Date(h.at) })), [part.history]);
  if (points.length < 2)
    return <p className="quiet">One point cannot be drawn as a history: two readings or runs are needed.</p>;

  const first = points[0]!.time;
  const last = points[points.length - 1]!.time;
  const today = parseDay(asOf);
  const until = new Date(today.getTime() + FORECAST_DAYS * DAY);
  const level = points[points.length - 1]!.model;
  const pace = part.paceKelvinPerDay > 0 ? part.paceKelvinPerDay : null;
  const trend = pace !== null && part.trend?.rising ? part.trend : null;
  const future = [0, 30, 60, FORECAST_DAYS].map((days) => ({
    time: new Date(last.getTime() + days * DAY),
    low: level + Math.max(0, Math.min(trend?.low ?? 0, pace ?? 0)) * days,
    middle: level + (pace ?? 0) * days,
    high: level + Math.max(trend?.high ?? 0, pace ?? 0) * days,
  }));
  const values = points
    .flatMap((p) => [p.observed, p.model, p.observed - p.room])
    .concat(future.map((f) => f.high));
  const x = scaleTime([first, until], [EDGE.left, WIDTH - EDGE.right]);
  const y = scaleLinear(
    [Math.min(part.baselineRiseKelvin, ...values) - 2, Math.max(...values) + 2],
    [HEIGHT - EDGE.bottom, EDGE.top],
  ).nice(5);
  const marks: Mark[] = services
    .map((s) => ({ at: parseDay(s.date), text: s.level, struck: s.voidedReason !== null }))
    .filter((m) => m.at >= first && m.at <= until);
  const model = line<(typeof points)[number]>(
    (p) => x(p.time),
    (p) => y(p.model),
  ).curve(curveMonotoneX)(points);
  const band = area<(typeof future)[number]>(
    (f) => x(f.time),
    (f) => y(f.low),
    (f) => y(f.high),
  )(future);
  const colour = heat(part.driftKelvin, part.limitCelsius - (part.latestCelsius ?? -Infinity));
  const picked = at === null ? null : points[at]!;

  const onMove = (event: React.PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const time = x.invert(((event.clientX - box.left) / box.width) * WIDTH).getTime();
    let best = 0;
    points.forEach((p, i) => {
      if (Math.abs(p.time.getTime() - time) < Math.abs(points[best]!.time.getTime() - time)) best = i;
    });
    setAt(best);
  };

  return (
    <figure style={{ margin: 0 }}>
      <svg
        viewBox={`0 0 ${String(WIDTH)} ${String(HEIGHT)}`}
        width="100%"
        role="img"
        aria-label={`Rise of the ${partName(part.part)} since ${fullDay(part.history[0]!.at.slice(0, 10))}: fresh ${kelvin(part.baselineRiseKelvin)}, now ${kelvin(part.presentRiseKelvin)}`}
        onPointerMove={onMove}
        onPointerLeave={() => setAt(null)}
      >
        {y.ticks(5).map((tick) => (
          <g key={tick}>
            <path
              d={`M${String(EDGE.left)} ${String(y(tick))}H${String(WIDTH - EDGE.right)}`}
              stroke="var(--line)"
            />
            <text
              x={EDGE.left - 7}
              y={y(tick) + 4}
              textAnchor="end"
              fontSize={11}
              className="figures"
              fill="var(--quiet)"
            >
              {tick}
            </text>
          </g>
        ))}
        <text x={EDGE.left - 7} y={12} textAnchor="end" fontSize={11} fill="var(--quiet)">
          K
        </text>
        {x.ticks(7).map((tick) => (
          <text
            key={tick.getTime()}
            x={x(tick)}
            y={HEIGHT - 8}
            textAnchor="middle"
            fontSize={11}
            fill="var(--quiet)"
          >
            {tick.toLocaleDateString(
              undefined,
              tick.getMonth() === 0 ? { year: 'numeric' } : { month: 'short' },
            )}
          </text>
        ))}
        <path
          d={`M${String(EDGE.left)} ${String(y(part.baselineRiseKelvin))}H${String(WIDTH - EDGE.right)}`}
          stroke="var(--ink)"
          strokeDasharray="2 4"
        />
        <text
          x={WIDTH - EDGE.right}
          y={y(part.baselineRiseKelvin) + 13}
          textAnchor="end"
          fontSize={11}
          fill="var(--quiet)"
        >
          fresh
        </text>
        {trend && band && <path d={band} fill={colour} opacity={0.28} />}
        {pace !== null && (
          <path
            d={`M${String(x(future[0]!.time))} ${String(y(future[0]!.middle))}L${String(x(future[3]!.time))} ${String(y(future[3]!.middle))}`}
            stroke={colour}
            strokeWidth={2}
            strokeDasharray="4 4"
          />
        )}
        {points.map((p) => (
          <g key={p.at}>
            {Math.abs(p.room) >= 1 && (
              <path
                d={`M${String(x(p.time))} ${String(y(p.observed))}V${String(y(p.observed - p.room))}`}
                stroke="var(--stone)"
              />
            )}
            {p.run ? (
              <path
                d={`M${String(x(p.time))} ${String(y(p.observed - p.room) - 5)}l5 5l-5 5l-5 -5z`}
                fill="var(--paper)"
                stroke="var(--ink)"
                strokeWidth={1.4}
              />
            ) : (
              <circle cx={x(p.time)} cy={y(p.observed - p.room)} r={1.9} fill="var(--quiet)" />
            )}
          </g>
        ))}
        {model && <path d={model} fill="none" stroke={colour} strokeWidth={2.4} />}
        {marks.map((m) => (
          <g key={`${m.text}${String(m.at.getTime())}`} opacity={m.struck ? 0.45 : 1}>
            <path
              d={`M${String(x(m.at))} ${String(EDGE.top)}V${String(HEIGHT - EDGE.bottom)}`}
              stroke="var(--ink)"
            />
            <text
              x={Math.min(x(m.at) + 4, WIDTH - 60)}
              y={EDGE.top - 5}
              fontSize={11}
              fill="var(--ink)"
              textDecoration={m.struck ? 'line-through' : undefined}
            >
              {m.text}
            </text>
          </g>
        ))}
        {picked && (
          <path
            d={`M${String(x(picked.time))} ${String(EDGE.top)}V${String(HEIGHT - EDGE.bottom)}`}
            stroke="var(--quiet)"
            strokeDasharray="2 2"
          />
        )}
      </svg>
      <figcaption className="small quiet" aria-live="off" style={{ minHeight: 20 }}>
        {picked
          ? `${instant(picked.at)}${picked.run ? ', a run at the bench' : ''}: ${kelvin(picked.observed)} over the air${Math.abs(picked.room) >= 0.3 ? `, ${kelvin(picked.room)} of it the room` : ''}; fitted ${kelvin(picked.model)}`
          : `Points: medians of five days, the room taken out (grey stalks show how much).${points.some((p) => p.run) ? ' Diamonds: runs at the bench.' : ''} Line: the fitted wear. Band: where it is heading, 80 %.`}
      </figcaption>
    </figure>
  );
}
