import type { Schemas } from '../api/client';
import { capital, kelvin, partName, useTemperature } from '../lib/format';
import { heat } from '../theme/heat';

type Part = Schemas['PartAnswer'];

interface Layer {
  name: string;
  note: string;
  now: number;
  fresh: number;
}

/**
 * A cut through the machine from the chip down to the room's air: each layer as thick as the kelvins it costs now, what it has
 * gained since fresh glowing. The sick layer is seen.
 */
export function HeatPath({
  part,
  room,
  ambient,
  height = 340,
}: {
  part: Part;
  room: number;
  ambient: number | null;
  height?: number;
}) {
  const { full } = useTemperature();
  const layers = layersOf(part);
  const total = layers.reduce((sum, l) => sum + Math.max(l.now, 0), 0) + (room >= 1 ? room : 0);
  const air = 34;
  const scale = (height - air - 24) / Math.max(total, 1);
  const colour = heat(part.limitCelsius - part.latestCelsius);
  const drawn = layers.reduce<(Layer & { y: number; thickness: number })[]>((above, layer) => {
    const last = above.at(-1);
    return [
      ...above,
      { ...layer, y: last ? last.y + last.thickness : 22, thickness: Math.max(2, layer.now * scale) },
    ];
  }, []);
  const bottom = drawn.at(-1);
  const y = bottom ? bottom.y + bottom.thickness : 22;
  const roomThickness = room >= 1 ? room * scale : 0;
  const label = `${capital(partName(part.part))} ${full(part.latestCelsius)}: ${layers.map((l) => `${l.name} ${kelvin(l.now)}, fresh ${kelvin(l.fresh)}`).join('; ')}`;
  return (
    <figure style={{ margin: 0 }}>
      <svg
        width="100%"
        viewBox={`0 0 264 ${String(y + roomThickness + air + 4)}`}
        role="img"
        aria-label={label}
      >
        <text x={0} y={14} fontSize={13} fontWeight={700} className="figures" fill="var(--ink)">
          {full(part.latestCelsius)}
        </text>
        <text x={262} y={14} fontSize={11.5} textAnchor="end" fill="var(--quiet)">
          K now / fresh
        </text>
        {drawn.map((l) => {
          const lost = l.now - l.fresh;
          const sick = lost >= 1;
          const middle = l.y + l.thickness / 2;
          const text = l.thickness >= 15;
          return (
            <g key={l.name}>
              <rect
                x={0.6}
                y={l.y}
                width={92}
                height={l.thickness}
                fill="var(--stone)"
                stroke="var(--ink)"
                strokeWidth={0.7}
              />
              {sick && (
                <rect
                  x={0.6}
                  y={l.y + l.fresh * scale}
                  width={92}
                  height={lost * scale}
                  fill={colour}
                  stroke="var(--ink)"
                  strokeWidth={1.5}
                />
              )}
              {(text || sick) && (
                <>
                  <text
                    x={102}
                    y={middle + (l.note ? -2 : 4)}
                    fontSize={12.5}
                    fontWeight={650}
                    fill="var(--ink)"
                  >
                    {l.name}
                  </text>
                  <text
                    x={262}
                    y={middle + (l.note ? -2 : 4)}
                    fontSize={12}
                    textAnchor="end"
                    className="figures"
                    fill="var(--ink)"
                  >
                    {kelvin(l.now).replace(' K', '')} / {kelvin(l.fresh).replace(' K', '')}
                  </text>
                  {l.note && (
                    <text x={102} y={middle + 12} fontSize={11.5} fill="var(--quiet)">
                      {l.note}
                    </text>
                  )}
                </>
              )}
            </g>
          );
        })}
        {roomThickness > 0 && (
          <g>
            <rect
              x={0.6}
              y={y}
              width={92}
              height={roomThickness}
              fill={colour}
              stroke="var(--ink)"
              strokeWidth={1.6}
            />
            <text x={102} y={y + roomThickness / 2 + 4} fontSize={12.5} fontWeight={650} fill="var(--ink)">
              The room
            </text>
            <text
              x={262}
              y={y + roomThickness / 2 + 4}
              fontSize={12}
              textAnchor="end"
              className="figures"
              fill="var(--ink)"
            >
              {kelvin(room).replace(' K', '')} / 0
            </text>
          </g>
        )}
        <rect
          x={0.6}
          y={y + roomThickness}
          width={92}
          height={air}
          fill="var(--track)"
          stroke="var(--ink)"
          strokeWidth={0.7}
        />
        <text x={102} y={y + roomThickness + air / 2 - 1} fontSize={12.5} fontWeight={650} fill="var(--ink)">
          Room air
        </text>
        <text x={102} y={y + roomThickness + air / 2 + 13} fontSize={11.5} fill="var(--quiet)">
          {ambient === null ? 'not measured' : `${full(ambient)} at the intake`}
        </text>
      </svg>
    </figure>
  );
}

function layersOf(part: Part): Layer[] {
  const pads = part.interface === 'pad';
  const mount = part.split.find((s) => s.cause === 'mount')?.kelvin ?? 0;
  const names: Record<string, string> = {
    joint: pads ? 'Chip and pads' : 'Chip and paste',
    fins: 'Plate and fins',
    fan: 'Fan',
  };
  return part.path
    .filter((l) => l.layer !== 'fan' || l.nowKelvin >= 0.5)
    .map((l) => {
      const lost = l.nowKelvin - l.freshKelvin;
      return {
        name: names[l.layer] ?? l.layer,
        now: l.nowKelvin,
        fresh: l.freshKelvin,
        note:
          lost < 1
            ? ''
            : l.layer === 'joint'
              ? `${kelvin(lost)} more than fresh${mount >= lost / 2 ? ': mount' : ''}`
              : l.layer === 'fins'
                ? `${kelvin(lost)} more: dust`
                : `${kelvin(lost)} for its lost speed`,
      };
    });
}
