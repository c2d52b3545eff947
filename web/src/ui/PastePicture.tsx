import { t } from '@lingui/core/macro';
import type { Schemas } from '../api/client';
import { PATTERNS } from '../words/work';

type Pattern = Schemas['PastePattern'];

/** Each pattern on a chip of 20 × 20, drawn where the paste goes before the cooler is set down. */
const STROKES: Record<Pattern, string> = {
  spread: 'M2 2H18V18H2Z',
  line: 'M10 3V17',
  dot: 'M10 10h.01',
  cross: 'M3.5 3.5L16.5 16.5M16.5 3.5L3.5 16.5',
};

const WIDTHS: Record<Pattern, number> = { spread: 0, line: 2, dot: 5.5, cross: 1.8 };

/** How paste is laid on a chip, from above; a line runs along the longer side. */
export function PastePicture({ pattern, lidded }: { pattern: Pattern; lidded: boolean | null }) {
  const wide = pattern === 'line' && lidded === false;
  return (
    <svg
      className="paste-picture"
      viewBox={wide ? '0 5 20 10' : '0 0 20 20'}
      role="img"
      aria-label={t`Paste laid on as ${PATTERNS[pattern]}`}
    >
      <rect
        x={0.4}
        y={wide ? 5.4 : 0.4}
        width={19.2}
        height={wide ? 9.2 : 19.2}
        rx={lidded ? 1.5 : 0}
        fill="var(--panel)"
        stroke="var(--ink)"
        strokeWidth={0.5}
      />
      <path
        d={wide ? 'M3 10H17' : STROKES[pattern]}
        fill={pattern === 'spread' ? 'var(--quiet)' : 'none'}
        fillOpacity={0.7}
        stroke={WIDTHS[pattern] > 0 ? 'var(--quiet)' : 'none'}
        strokeWidth={WIDTHS[pattern]}
        strokeLinecap="round"
      />
    </svg>
  );
}
