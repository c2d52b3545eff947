import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { line } from 'd3-shape';
import { useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import type { Paper } from '../../ui/chart/Axes';
import type { Span } from '../../ui/chart/span';
import { TimeChart } from '../../ui/chart/TimeChart';
import { differenceUnit, fullDay, inUnit, kelvin, tenths, useTemperature } from '../../words/format';

interface Point {
  time: Date;
  sensor: number;
  machines: number | null;
  room: number | null;
}

/** The air of a zone through time: what its sensors say, what its machines show, and what it is planned for. */
export function AirChart({ zone }: { zone: Schemas['ZoneAnswer'] }) {
  const { unit, exact } = useTemperature();
  const difference = differenceUnit();
  const [span, setSpan] = useState<Span | null>(null);
  const air = useQuery({
    queryKey: ['zone-air', zone.code],
    queryFn: () => unwrap(api.GET('/api/v1/zones/{code}/air', { params: { path: { code: zone.code } } })),
  });
  if (!air.data) return null;
  if (air.data.length < 2) return <p className="quiet">{t`The air of this zone was never measured.`}</p>;
  const points: Point[] = air.data.map((p) => ({
    time: new Date(p.at),
    sensor: inUnit(p.sensorCelsius, unit),
    machines: p.roomKelvin === null ? null : inUnit(p.sensorCelsius + p.roomKelvin, unit),
    room: p.roomKelvin,
  }));
  const planned = inUnit(zone.designAmbientCelsius, unit);
  const all: Span = [points[0]!.time.getTime(), points[points.length - 1]!.time.getTime()];
  const draw = ({ x, y, left, right, shows }: Paper) => {
    const seen = points.filter((p) => shows(p.time));
    const path = (of: (p: Point) => number | null) =>
      line<Point>(
        (p) => x(p.time),
        (p) => y(of(p) ?? 0),
      ).defined((p) => of(p) !== null)(seen) ?? undefined;
    return (
      <>
        <path
          d={`M${String(left)} ${String(y(planned))}H${String(right)}`}
          stroke="var(--ink)"
          strokeDasharray="2 4"
        />
        <text x={left + 4} y={y(planned) - 5} className="chart-mark">
          {t`planned`}
        </text>
        <path d={path((p) => p.sensor)} fill="none" stroke="var(--quiet)" strokeWidth={1.6} />
        <path d={path((p) => p.machines)} fill="none" stroke="var(--ink)" strokeWidth={2.2} />
      </>
    );
  };
  return (
    <TimeChart
      label={t`Air of ${zone.name}`}
      unit={`°${unit}`}
      name={`${zone.code}-air`}
      height={190}
      points={points}
      all={all}
      present={all[1]}
      span={span}
      onSpan={setSpan}
      values={(inSight) => [
        planned,
        ...inSight.flatMap((p) => (p.machines === null ? [p.sensor] : [p.sensor, p.machines])),
      ]}
      draw={draw}
      tell={(p) =>
        t`${fullDay(p.time.toISOString().slice(0, 10))}: its sensors say ${tenths(p.sensor)} °${unit}` +
        (p.room === null
          ? '.'
          : p.room < 0
            ? t`, its machines show ${kelvin(-p.room)} less.`
            : t`, its machines show ${kelvin(p.room)} more.`)
      }
      legend={t`Thin: what the intake sensors say. Thick: what the machines show. Dotted: planned for at most ${exact(zone.designAmbientCelsius)}.`}
      table={{
        header: [t`sensors, °${unit}`, t`machines beyond, ${difference.unit}`],
        row: (p) => [p.sensor, p.room === null ? null : p.room * difference.scale],
      }}
    />
  );
}
