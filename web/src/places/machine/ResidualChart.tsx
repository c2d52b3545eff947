import { t } from '@lingui/core/macro';
import { line } from 'd3-shape';
import type { Schemas } from '../../api/client';
import type { Paper } from '../../ui/chart/Axes';
import { TimeChart } from '../../ui/chart/TimeChart';
import { differenceUnit, instant, kelvin, parseDay, partName } from '../../words/format';
import { chartEnd, type MachineChart } from './chart';

const HEIGHT = 150;

/** A median absolute deviation times this is a standard deviation of normal scatter (Hampel 1974). */
const NORMAL = 1.4826;

interface Point {
  time: Date;
  left: number;
  room: number;
}

/**
 * The scatter around the fitted line: measured less room less fitted wear, with the steps that were found, the services, and
 * the room. A model that is right leaves a level band here; a drift in it is what nobody has explained.
 */
export function ResidualChart({
  tag,
  part,
  services,
  steps,
  asOf,
  span,
  onSpan,
}: MachineChart & { steps: readonly Schemas['StepChange'][] }) {
  const points: Point[] = part.history.map((h) => ({
    time: new Date(h.at),
    left: h.observed - h.room - h.model,
    room: h.room,
  }));
  if (points.length < 5) return null;
  const difference = differenceUnit();
  const sigma = scatter(points.map((p) => p.left));
  const outside = points.filter((p) => Math.abs(p.left) > 2 * sigma).length;
  const draw = ({ x, y, left, right, top, bottom, shows }: Paper) => {
    const seen = points.filter((p) => shows(p.time));
    const room = line<Point>(
      (p) => x(p.time),
      (p) => y(p.room),
    )(seen);
    const upright = (at: Date) => `M${String(x(at))} ${String(top)}V${String(bottom)}`;
    return (
      <>
        <rect
          x={left}
          y={y(2 * sigma)}
          width={right - left}
          height={y(-2 * sigma) - y(2 * sigma)}
          fill="var(--track)"
          opacity={0.6}
        />
        <path d={`M${String(left)} ${String(y(0))}H${String(right)}`} stroke="var(--stone)" />
        {room && <path d={room} fill="none" stroke="var(--stone)" strokeWidth={1.6} strokeDasharray="1 3" />}
        {seen.map((p) => (
          <circle
            key={p.time.getTime()}
            cx={x(p.time)}
            cy={y(p.left)}
            r={Math.abs(p.left) > 2 * sigma ? 3 : 1.9}
            fill={Math.abs(p.left) > 2 * sigma ? 'var(--ink)' : 'var(--quiet)'}
          />
        ))}
        {services
          .filter((s) => s.voidedReason === null && shows(parseDay(s.date)))
          .map((s) => (
            <path key={`${s.date} ${s.level}`} d={upright(parseDay(s.date))} stroke="var(--ink)" />
          ))}
        {steps
          .filter((s) => s.part === part.part && shows(parseDay(s.date)))
          .map((s) => (
            <g key={`${s.date} ${s.kind}`}>
              <path d={upright(parseDay(s.date))} stroke="var(--ink)" strokeDasharray="4 3" />
              <text x={x(parseDay(s.date)) + 4} y={top + 10} className="chart-mark">
                {t`${kelvin(s.kelvin)} step`}
              </text>
            </g>
          ))}
      </>
    );
  };
  return (
    <TimeChart
      label={t`Scatter around the fitted line of the ${partName(part.part)}: usually within ${kelvin(2 * sigma)}, ${String(outside)} of ${String(points.length)} points beyond`}
      unit={t`${difference.unit} from the fitted line`}
      scale={difference.scale}
      name={`${tag}-${part.part}-scatter`}
      height={HEIGHT}
      points={points}
      all={[points[0]!.time.getTime(), chartEnd(asOf)]}
      present={parseDay(asOf).getTime()}
      span={span}
      onSpan={onSpan}
      values={(inSight) => {
        const reach = Math.max(
          3,
          3 * sigma,
          ...inSight.map((p) => Math.max(Math.abs(p.left), Math.abs(p.room))),
        );
        return [-reach, reach];
      }}
      draw={draw}
      tell={(p) =>
        t`${instant(p.time.toISOString())}: ${kelvin(p.left)} from the fitted line; the room ${kelvin(p.room)}.`
      }
      legend={t`Scatter around the fitted line: usually within ±${kelvin(2 * sigma)} (band). Dotted: the room. Solid lines: services; dashed: steps that were found.`}
      table={{
        header: [t`from the fitted line, ${difference.unit}`, t`room, ${difference.unit}`],
        row: (p) => [p.left * difference.scale, p.room * difference.scale],
      }}
    />
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
