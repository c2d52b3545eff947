import { scaleLinear, scaleTime } from 'd3-scale';
import { useId, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { csv, download } from '../../words/csv';
import { Axes, EDGE, type Paper } from './Axes';
import './chart.css';
import { savePng, saveSvg } from './picture';
import { closer, lastDays, within, type Span } from './span';
import { TableBehind, type TableOf } from './TableBehind';
import { useWidth } from './useWidth';
import { ChartTools } from './ChartTools';

const WIDTH = 760;

/** A drag of fewer pixels is a press. */
const A_DRAG = 8;

/**
 * Values over time: read by pointer, touch and arrow keys, looked at closer by dragging, keys or choice, with its table one
 * key away and to be taken along as picture or CSV. What is drawn is the caller's.
 */
export function TimeChart<Point extends { time: Date }>({
  label,
  unit,
  scale = 1,
  name,
  height,
  points,
  all,
  present,
  span,
  onSpan,
  values,
  draw,
  tell,
  legend,
  table,
}: {
  /** What it shows, in a sentence for those who do not see it. */
  label: string;
  /** What the vertical axis is. */
  unit: string;
  /** What one of the drawn values is in that unit. */
  scale?: number;
  /** Of a file that it is saved in. */
  name: string;
  height: number;
  points: readonly Point[];
  /** The whole of it, with what is to come. */
  all: Span;
  /** The day as of which it is, ms. */
  present: number;
  /** What is looked at; null for all of it. */
  span: Span | null;
  onSpan: (span: Span | null) => void;
  /** What must be in sight vertically, given the points in sight. */
  values: (inSight: readonly Point[]) => readonly number[];
  draw: (paper: Paper) => ReactNode;
  tell: (point: Point) => string;
  legend: ReactNode;
  table: TableOf<Point>;
}) {
  const [box, width] = useWidth(WIDTH);
  const svg = useRef<SVGSVGElement>(null);
  const [at, setAt] = useState<number | null>(null);
  const [drag, setDrag] = useState<readonly [from: number, to: number] | null>(null);
  const [asTable, setAsTable] = useState(false);
  const id = useId();
  const seen = span ?? all;
  const x = scaleTime([new Date(seen[0]), new Date(seen[1])], [EDGE.left, width - EDGE.right]);
  const shows = (time: Date) => time.getTime() >= seen[0] && time.getTime() <= seen[1];
  const inSight = points.filter((p) => shows(p.time));
  const reach = values(inSight.length > 0 ? inSight : points);
  const y = scaleLinear([Math.min(...reach), Math.max(...reach)], [height - EDGE.bottom, EDGE.top]).nice(4);
  const picked = at === null ? null : (points[at] ?? null);

  const nearest = (time: number) =>
    points.reduce(
      (best, p, i) =>
        Math.abs(p.time.getTime() - time) < Math.abs(points[best]!.time.getTime() - time) ? i : best,
      0,
    );
  const pixel = (event: PointerEvent<SVGSVGElement>) =>
    event.clientX - event.currentTarget.getBoundingClientRect().left;
  const step = (by: number) => {
    const next = Math.min(points.length - 1, Math.max(0, (at ?? (by > 0 ? -1 : points.length)) + by));
    setAt(next);
    const time = points[next]!.time;
    if (!shows(time))
      onSpan(
        within([time.getTime() - (seen[1] - seen[0]) / 2, time.getTime() + (seen[1] - seen[0]) / 2], all),
      );
  };
  const keys: Record<string, () => void> = {
    ArrowRight: () => step(1),
    ArrowLeft: () => step(-1),
    Home: () => step(-points.length),
    End: () => step(points.length),
    '+': () => onSpan(closer(seen, picked?.time.getTime() ?? (seen[0] + seen[1]) / 2, all)),
    '-': () => onSpan(null),
    '−': () => onSpan(null),
  };
  const onKey = (event: KeyboardEvent) => {
    const action = keys[event.key];
    if (!action) return;
    event.preventDefault();
    action();
  };
  const rows = () => points.map((p) => [p.time.toISOString(), ...table.row(p)]);

  return (
    <figure className="chart">
      <ChartTools
        span={span}
        onLast={(days) => onSpan(lastDays(days, present, all))}
        onAll={() => onSpan(null)}
        tableId={id}
        asTable={asTable}
        onTable={() => setAsTable(!asTable)}
        onExport={(kind) => {
          if (kind === 'csv') download(`${name}.csv`, csv(['time', ...table.header], rows()));
          else if (svg.current && kind === 'svg') saveSvg(svg.current, name);
          else if (svg.current) void savePng(svg.current, name);
        }}
      />
      <div
        ref={box}
        className="chart-box"
        // Read like a scale: each arrow key goes on by a point, and its values are spoken.
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-valuemin={1}
        aria-valuemax={points.length}
        aria-valuenow={(at ?? points.length - 1) + 1}
        aria-valuetext={tell(picked ?? points[points.length - 1]!)}
        onKeyDown={onKey}
      >
        <svg
          ref={svg}
          viewBox={`0 0 ${String(width)} ${String(height)}`}
          width={width}
          height={height}
          aria-hidden="true"
          onPointerDown={(e) => {
            if (e.pointerType === 'mouse' && e.button === 0) setDrag([pixel(e), pixel(e)]);
          }}
          onPointerMove={(e) => {
            setAt(nearest(x.invert(pixel(e)).getTime()));
            if (drag) setDrag([drag[0], pixel(e)]);
          }}
          onPointerUp={() => {
            if (drag && Math.abs(drag[1] - drag[0]) >= A_DRAG)
              onSpan(
                within([x.invert(Math.min(...drag)).getTime(), x.invert(Math.max(...drag)).getTime()], all),
              );
            setDrag(null);
          }}
          onPointerLeave={() => {
            setAt(null);
            setDrag(null);
          }}
        >
          <Axes x={x} y={y} width={width} height={height} unit={unit} scale={scale} />
          {draw({
            x,
            y,
            left: EDGE.left,
            right: width - EDGE.right,
            top: EDGE.top,
            bottom: height - EDGE.bottom,
            shows,
          })}
          {picked && shows(picked.time) && (
            <path
              d={`M${String(x(picked.time))} ${String(EDGE.top)}V${String(height - EDGE.bottom)}`}
              stroke="var(--quiet)"
              strokeDasharray="2 2"
            />
          )}
          {drag && (
            <rect
              x={Math.min(...drag)}
              y={EDGE.top}
              width={Math.abs(drag[1] - drag[0])}
              height={height - EDGE.bottom - EDGE.top}
              fill="var(--ink)"
              opacity={0.12}
            />
          )}
        </svg>
      </div>
      <figcaption className="small quiet">{picked ? tell(picked) : legend}</figcaption>
      <div id={id}>{asTable && <TableBehind points={points} table={table} rows={rows()} />}</div>
    </figure>
  );
}
