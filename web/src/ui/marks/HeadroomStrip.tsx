import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { partName, useTemperature } from '../../words/format';
import { heat } from '../../theme/heat';

const LOW = 10;
const HIGH = 118;
const BAR = 7;

/**
 * One machine on one line: the air, where it was after its last service, where it is now, where it is heading on a hot
 * day, its action line and its limit. All strips share one scale, so that they can be read down the page.
 */
export function HeadroomStrip({ strip, width = 320 }: { strip: Schemas['Strip']; width?: number }) {
  const { degrees, full } = useTemperature();
  const x = (celsius: number) => (Math.min(Math.max(celsius, LOW), HIGH) - LOW) * (width / (HIGH - LOW));
  const { ambient, fresh, now, heading, line, limit } = strip;
  const colour = heat(now - fresh, limit - now);
  const y = 26;
  const lost = Math.max(0, now - fresh);
  const nowRight = x(limit) - x(now) < 44;
  const label =
    t`${partName(strip.part)}: air ${full(ambient)}, fresh ${full(fresh)}, now ${full(now)}, ` +
    t`${full(heading)} on a hot day, action line ${full(line)}, limit ${full(limit)}`;
  return (
    <svg width={width} height={52} role="img" aria-label={label} className="figures">
      <title>{label}</title>
      <rect x={0} y={y} width={x(limit)} height={BAR} fill="var(--track)" />
      <rect
        x={x(ambient)}
        y={y}
        width={Math.max(0, x(fresh) - x(ambient))}
        height={BAR}
        fill="var(--stone)"
      />
      {lost > 0.4 && <rect x={x(fresh)} y={y} width={x(now) - x(fresh)} height={BAR} fill={colour} />}
      {heading > now + 0.5 && (
        <path
          d={`M${String(x(now))} ${String(y + BAR / 2)}H${String(x(heading))}`}
          stroke={colour}
          strokeWidth={2.5}
          strokeDasharray="3 3"
        />
      )}
      <path
        d={`M${String(x(fresh))} ${String(y - 3)}v${String(BAR + 6)}`}
        stroke="var(--ink)"
        strokeWidth={1.2}
      />
      <path
        d={`M${String(x(line))} ${String(y - 5)}v${String(BAR + 10)}`}
        stroke="var(--ink)"
        strokeWidth={1.4}
        strokeDasharray="2 2"
      />
      <rect x={x(limit) - 1.2} y={y - 9} width={2.4} height={BAR + 18} fill="var(--ink)" />
      <circle cx={x(now)} cy={y + BAR / 2} r={5.2} fill={colour} stroke="var(--ink)" strokeWidth={1.3} />
      <text
        x={nowRight ? x(limit) - 6 : x(now)}
        y={y - 10}
        textAnchor={nowRight ? 'end' : 'middle'}
        fontSize={11.5}
        fontWeight={700}
        fill="var(--ink)"
      >
        {degrees(now)}
      </text>
      <text x={x(limit) + 3} y={y - 10} textAnchor="start" fontSize={11} fill="var(--quiet)">
        {degrees(limit)}
      </text>
      <text x={Math.max(24, x(ambient))} y={y + 23} textAnchor="middle" fontSize={11} fill="var(--quiet)">
        {t`air ${degrees(ambient)}`}
      </text>
      {x(fresh) - x(ambient) > 52 && (
        <text x={x(fresh)} y={y + 23} textAnchor="middle" fontSize={11} fill="var(--quiet)">
          {degrees(fresh)}
        </text>
      )}
    </svg>
  );
}
