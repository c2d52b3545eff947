import type { ScaleLinear, ScaleTime } from 'd3-scale';

/** The room around what is drawn, px. */
export const EDGE = { left: 40, right: 12, top: 30, bottom: 24 };

/** Room that a label of the time axis needs, px. */
const LABEL = 64;

/** What a chart is drawn with, in CSS pixels. */
export interface Paper {
  x: ScaleTime<number, number>;
  y: ScaleLinear<number, number>;
  left: number;
  right: number;
  top: number;
  bottom: number;
  /** Whether an instant is in sight. */
  shows: (at: Date) => boolean;
}

/** Both axes: values with their unit, days or months. */
export function Axes({
  x,
  y,
  width,
  height,
  unit,
  scale,
}: Pick<Paper, 'x' | 'y'> & {
  width: number;
  height: number;
  unit: string;
  /** What one of the drawn values is in that unit. */
  scale: number;
}) {
  const shown = y.copy().domain(y.domain().map((value) => value * scale));
  const years = x.domain()[1]!.getTime() - x.domain()[0]!.getTime() > 300 * 86_400_000;
  return (
    <>
      {shown.ticks(5).map((tick) => (
        <g key={tick}>
          <path
            d={`M${String(EDGE.left)} ${String(shown(tick))}H${String(width - EDGE.right)}`}
            stroke="var(--line)"
          />
          <text x={EDGE.left - 7} y={shown(tick) + 4} className="chart-figure" textAnchor="end">
            {tick}
          </text>
        </g>
      ))}
      <text x={0} y={12} className="chart-word">
        {unit}
      </text>
      {x.ticks(Math.max(3, Math.floor((width - EDGE.left) / LABEL) - 1)).map((tick) => (
        <text key={tick.getTime()} x={x(tick)} y={height - 7} className="chart-word" textAnchor="middle">
          {tick.toLocaleDateString(
            undefined,
            years
              ? tick.getMonth() === 0
                ? { year: 'numeric' }
                : { month: 'short' }
              : { day: 'numeric', month: 'short' },
          )}
        </text>
      ))}
    </>
  );
}
