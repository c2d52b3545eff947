import { t } from '@lingui/core/macro';
import { area, curveMonotoneX, line } from 'd3-shape';
import { useMemo } from 'react';
import type { Schemas } from '../../api/client';
import { heat } from '../../theme/heat';
import type { Span } from '../../ui/chart/span';
import type { Paper } from '../../ui/chart/Axes';
import { TimeChart } from '../../ui/chart/TimeChart';
import { capital, differenceUnit, fullDay, instant, kelvin, parseDay, partName } from '../../words/format';
import { chartEnd, type MachineChart } from './chart';
import { levelName } from '../../words/work';

const HEIGHT = 288;
const DAY = 86_400_000;

/** A line further away than this many times what is drawn is told, not drawn: it would press all else together. */
const FAR = 1;

interface Point extends Omit<Schemas['HistoryPoint'], 'at'> {
  time: Date;
  at: string;
}

/**
 * A part's rise over the air through time, brought to one operating point: what was measured, the fitted wear, the room
 * taken out, services as marks, action line and limit, and where it is heading.
 */
export function DriftChart({ tag, part, services, asOf, span, onSpan }: MachineChart) {
  const points = useMemo<Point[]>(
    () => part.history.map((h) => ({ ...h, time: new Date(h.at) })),
    [part.history],
  );
  if (points.length < 2)
    return (
      <p className="quiet">{t`One point cannot be drawn as a history: two readings or runs are needed.`}</p>
    );

  const difference = differenceUnit();
  const first = points[0]!.time;
  const last = points[points.length - 1]!;
  const all: Span = [first.getTime(), chartEnd(asOf)];
  const future = futureOf(part, last);
  const lines = linesOf(part, last.model);
  const base = (inSight: readonly Point[]) => [
    part.baselineRiseKelvin - 1,
    ...inSight.flatMap((p) => [p.observed, p.model, p.observed - p.room]),
    ...future.map((f) => f.high),
  ];
  const reachable = (values: readonly number[]) => {
    const [low, high] = [Math.min(...values), Math.max(...values)];
    return lines.filter((l) => l.kelvin <= high + FAR * (high - low));
  };
  const drawn = reachable(base(points));
  const away = lines.filter((l) => !drawn.includes(l));
  const marks = services.map((s) => ({
    at: parseDay(s.date),
    text: levelName(s.level),
    struck: s.voidedReason !== null,
  }));
  const colour = heat(part.driftKelvin, part.limitCelsius - (part.latestCelsius ?? -Infinity));

  const draw = (paper: Paper) => {
    const { x, y, left, right, top, bottom, shows } = paper;
    const seen = points.filter((p) => shows(p.time));
    const model = line<Point>(
      (p) => x(p.time),
      (p) => y(p.model),
    ).curve(curveMonotoneX)(seen);
    const band = area<(typeof future)[number]>(
      (f) => x(f.time),
      (f) => y(f.low),
      (f) => y(f.high),
    )(future);
    return (
      <>
        <Level y={y(part.baselineRiseKelvin)} left={left} right={right} text={t`fresh`} below />
        {drawn.map((l) => (
          <Level key={l.text} y={y(l.kelvin)} left={left} right={right} text={l.text} heavy={l.heavy} />
        ))}
        {part.trend?.rising && part.paceKelvinPerDay > 0 && band && shows(last.time) && (
          <path d={band} fill={colour} opacity={0.28} />
        )}
        {part.paceKelvinPerDay > 0 && shows(last.time) && (
          <path
            d={`M${String(x(future[0]!.time))} ${String(y(future[0]!.middle))}L${String(x(future[1]!.time))} ${String(y(future[1]!.middle))}`}
            stroke={colour}
            strokeWidth={2}
            strokeDasharray="4 4"
          />
        )}
        {seen.map((p) => (
          <Mark key={p.at} x={x(p.time)} seen={y(p.observed)} y={y(p.observed - p.room)} point={p} />
        ))}
        {model && <path d={model} fill="none" stroke={colour} strokeWidth={2.4} />}
        {marks
          .filter((m) => shows(m.at))
          .map((m) => (
            <g key={`${m.text}${String(m.at.getTime())}`} opacity={m.struck ? 0.45 : 1}>
              <path d={`M${String(x(m.at))} ${String(top - 4)}V${String(bottom)}`} stroke="var(--ink)" />
              <text
                x={x(m.at) + (x(m.at) > right - 70 ? -4 : 4)}
                y={top - 6}
                className="chart-mark"
                textAnchor={x(m.at) > right - 70 ? 'end' : 'start'}
                textDecoration={m.struck ? 'line-through' : undefined}
              >
                {m.text}
              </text>
            </g>
          ))}
      </>
    );
  };

  return (
    <TimeChart
      label={t`Rise of the ${partName(part.part)} above its air since ${fullDay(part.history[0]!.at.slice(0, 10))}: fresh ${kelvin(part.baselineRiseKelvin)}, now ${kelvin(part.presentRiseKelvin)}`}
      unit={t`${difference.unit} above the air`}
      scale={difference.scale}
      name={`${tag}-${part.part}-rise`}
      height={HEIGHT}
      points={points}
      all={all}
      present={parseDay(asOf).getTime()}
      span={span}
      onSpan={onSpan}
      values={(inSight) => [...base(inSight), ...drawn.map((l) => l.kelvin)]}
      draw={draw}
      tell={(p) =>
        t`${instant(p.at)}${p.run ? t`, a run at the bench` : ''}: ${kelvin(p.observed)} above the air${Math.abs(p.room) >= 0.3 ? t`, of which the room ${kelvin(p.room)}` : ''}; fitted line ${kelvin(p.model)}.`
      }
      legend={
        <>
          {t`Points: medians of five days at one load and fan, without the room (grey stalks show how much it was).`}{' '}
          {points.some((p) => p.run) && t`Diamonds: runs at the bench. `}
          {t`Line: fitted wear. Band: where it is heading, 80 %. Action line and limit: where it would stand when the hottest day reaches them.`}{' '}
          {away.map((l) => t`${capital(l.text)}: ${kelvin(l.kelvin - last.model)} above. `)}
        </>
      }
      table={{
        header: [
          t`measured, ${difference.unit} above the air`,
          t`room, ${difference.unit}`,
          t`without the room, ${difference.unit}`,
          t`fitted, ${difference.unit}`,
          t`from`,
        ],
        row: (p) => [
          ...[p.observed, p.room, p.observed - p.room, p.model].map((kelvin) => kelvin * difference.scale),
          p.run ? t`run` : t`readings`,
        ],
      }}
    />
  );
}

/** Where it is heading: from the last point to the end of the chart, by its pace and that pace's 80 % interval. */
function futureOf(part: Schemas['PartAnswer'], last: Point) {
  const pace = Math.max(0, part.paceKelvinPerDay);
  const trend = part.trend?.rising && pace > 0 ? part.trend : null;
  return [0, 90].map((days) => ({
    time: new Date(last.time.getTime() + days * DAY),
    low: last.model + Math.max(0, Math.min(trend?.low ?? 0, pace)) * days,
    middle: last.model + pace * days,
    high: last.model + Math.max(trend?.high ?? 0, pace) * days,
  }));
}

/** Action line and limit, as rise of the fitted line at which the hottest day would reach them. */
function linesOf(part: Schemas['PartAnswer'], now: number) {
  const action = now + part.marginKelvin;
  return [
    { text: t`action line`, kelvin: action, heavy: false },
    { text: t`limit`, kelvin: action + part.limitCelsius - part.actionLineCelsius, heavy: true },
  ];
}

function Level({
  y,
  left,
  right,
  text,
  heavy = false,
  below = false,
}: {
  y: number;
  left: number;
  right: number;
  text: string;
  heavy?: boolean;
  below?: boolean;
}) {
  return (
    <>
      <path
        d={`M${String(left)} ${String(y)}H${String(right)}`}
        stroke="var(--ink)"
        strokeWidth={heavy ? 2.2 : 1.2}
        strokeDasharray={heavy ? undefined : '2 4'}
      />
      <text x={right} y={below ? y + 13 : y - 5} textAnchor="end" className="chart-mark">
        {text}
      </text>
    </>
  );
}

function Mark({ x, y, seen, point }: { x: number; y: number; seen: number; point: Point }) {
  return (
    <g>
      {Math.abs(point.room) >= 1 && (
        <path d={`M${String(x)} ${String(seen)}V${String(y)}`} stroke="var(--stone)" />
      )}
      {point.run ? (
        <path
          d={`M${String(x)} ${String(y - 5)}l5 5l-5 5l-5 -5z`}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth={1.4}
        />
      ) : (
        <circle cx={x} cy={y} r={1.9} fill="var(--quiet)" />
      )}
    </g>
  );
}
