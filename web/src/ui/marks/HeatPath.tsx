import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { capital, differenceUnit, exactTenths, kelvin, partName, useTemperature } from '../../words/format';
import { heat } from '../../theme/heat';

type Part = Schemas['PartAnswer'];

interface Layer {
  name: string;
  note: string;
  now: number;
  fresh: number;
}

/**
 * A cut through the machine from the chip down to the room's air: each layer as thick as the kelvins it costs now, what it has
 * gained since fresh glowing. Air and layers add up to the figure at the top; what takes away is written, not drawn.
 */
export function HeatPath({
  part,
  measured,
  height = 340,
}: {
  part: Part;
  /** When and how, for the line at the top. */
  measured: string | null;
  height?: number;
}) {
  const { exact } = useTemperature();
  const { unit } = differenceUnit();
  const layers = layersOf(part);
  const total = layers.reduce((sum, l) => sum + Math.max(l.now, 0), 0);
  const air = 34;
  const top = measured ? 38 : 22;
  // Thin layers keep room for their line of figures; the others share what is left.
  const rough = (height - air - top) / Math.max(total, 1);
  const thin = layers.filter((l) => l.now * rough < LEAST);
  const thick = total - thin.reduce((sum, l) => sum + Math.max(l.now, 0), 0);
  const scale = (height - air - top - thin.length * LEAST) / Math.max(thick, 1);
  const colour = heat(part.driftKelvin, part.limitCelsius - (part.latestCelsius ?? -Infinity));
  const drawn = layers.reduce<(Layer & { y: number; thickness: number; row: number })[]>((above, layer) => {
    const last = above.at(-1);
    const thickness = Math.max(0.5, layer.now * scale);
    return [
      ...above,
      { ...layer, y: last ? last.y + last.row : top, thickness, row: Math.max(LEAST, thickness) },
    ];
  }, []);
  const bottom = drawn.at(-1);
  const y = bottom ? bottom.y + bottom.row : top;
  const now = part.latestCelsius === null ? t`not measured` : exact(part.latestCelsius);
  const label = `${capital(partName(part.part))} ${now}: ${layers.map((l) => t`${l.name} ${figure(l.now)} ${unit}, fresh ${figure(l.fresh)} ${unit}`).join('; ')}`;
  return (
    <figure className="no-gap">
      <svg width="100%" viewBox={`0 0 264 ${String(y + air + 4)}`} role="img" aria-label={label}>
        <text x={0} y={14} fontSize={13} fontWeight={700} className="figures" fill="var(--ink)">
          {now}
        </text>
        <text x={262} y={14} fontSize={11.5} textAnchor="end" fill="var(--quiet)">
          {t`${unit} now / fresh`}
        </text>
        {measured && (
          <text x={0} y={30} fontSize={11.5} fill="var(--quiet)">
            {measured}
          </text>
        )}
        {drawn.map((l) => {
          const lost = l.now - l.fresh;
          const sick = lost >= 1;
          const middle = l.y + l.row / 2;
          return (
            <g key={l.name}>
              <rect
                x={0.6}
                y={l.y}
                width={BAR}
                height={l.thickness}
                fill="var(--stone)"
                stroke="var(--ink)"
                strokeWidth={0.7}
              />
              {sick && (
                <rect
                  x={0.6}
                  y={l.y + l.fresh * scale}
                  width={BAR}
                  height={lost * scale}
                  fill={colour}
                  stroke="var(--ink)"
                  strokeWidth={1.5}
                />
              )}
              <text
                x={BAR + 8}
                y={middle + (l.note && l.row >= 28 ? -2 : 4)}
                fontSize={12}
                fontWeight={l.now < 0 ? 400 : 650}
                fill="var(--ink)"
              >
                {l.name}
              </text>
              <text
                x={262}
                y={middle + (l.note && l.row >= 28 ? -2 : 4)}
                fontSize={11.5}
                textAnchor="end"
                className="figures"
                fill="var(--ink)"
              >
                {figure(l.now)} / {figure(l.fresh)}
              </text>
              {l.note && l.row >= 28 && (
                <text x={BAR + 8} y={middle + 12} fontSize={11.5} fill="var(--quiet)">
                  {l.note}
                </text>
              )}
            </g>
          );
        })}
        <rect
          x={0.6}
          y={y}
          width={BAR}
          height={air}
          fill="var(--track)"
          stroke="var(--ink)"
          strokeWidth={0.7}
        />
        <text x={BAR + 8} y={y + air / 2 - 1} fontSize={12} fontWeight={650} fill="var(--ink)">
          {t`Room air`}
        </text>
        <text x={BAR + 8} y={y + air / 2 + 13} fontSize={11.5} fill="var(--quiet)">
          {part.airCelsius === null ? t`not measured` : t`${exact(part.airCelsius)} at the intake`}
        </text>
      </svg>
    </figure>
  );
}

/** Width of the layers, and the least height of a layer's line of figures. */
const BAR = 64;
const LEAST = 15;

/** Tenths always, so that the column can be added up. */
function figure(value: number): string {
  return exactTenths(value * differenceUnit().scale);
}

/** What stands between the air and the part besides its wear; the last ones may take away. */
const NAMES: Record<string, string> = {
  fan: t`Fan`,
  served: t`Service since`,
  sensor: t`Sensor off by`,
  hidden: t`Faster fan`,
  conditions: t`Load and fan`,
  room: t`The room`,
  unexplained: t`Not explained`,
};

function layersOf(part: Part): Layer[] {
  const pads = part.interface === 'pad';
  const mount = part.split.find((s) => s.cause === 'mount')?.kelvin ?? 0;
  return part.path
    .filter((l) => l.layer === 'joint' || l.layer === 'fins' || Math.abs(l.nowKelvin) >= 0.05)
    .map((l) => {
      const lost = l.nowKelvin - l.freshKelvin;
      return {
        name:
          l.layer === 'joint'
            ? pads
              ? t`Chip and pads`
              : t`Chip and paste`
            : l.layer === 'fins'
              ? t`Plate and fins`
              : (NAMES[l.layer] ?? l.layer),
        now: l.nowKelvin,
        fresh: l.freshKelvin,
        note:
          lost < 1
            ? ''
            : l.layer === 'joint'
              ? t`${kelvin(lost)} more than fresh${mount >= lost / 2 ? t`: mount` : ''}`
              : l.layer === 'fins'
                ? t`${kelvin(lost)} more: dust`
                : l.layer === 'fan'
                  ? t`${kelvin(lost)} for its lost speed`
                  : '',
      };
    });
}
