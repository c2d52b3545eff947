import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { mm, size } from '../../words/amounts';

type Sheet = Schemas['SheetToCutAnswer'];

/** Room around a sheet for the numbers of its cuts, mm. */
const MARGIN = 6;

/**
 * A sheet to scale: the pads in their places, the cuts with their numbers, what goes back to the shelf. With `trueSize` it is
 * as large on paper as it is.
 */
export function SheetDrawing({
  sheet,
  names,
  trueSize = false,
}: {
  sheet: Sheet;
  names: ReadonlyMap<string, string>;
  trueSize?: boolean;
}) {
  const width = sheet.widthMm + 2 * MARGIN;
  const height = sheet.heightMm + 2 * MARGIN;
  return (
    <svg
      className="stores-sheet"
      viewBox={`${String(-MARGIN)} ${String(-MARGIN)} ${String(width)} ${String(height)}`}
      role="img"
      aria-label={t`${sheet.product}, ${size(sheet.widthMm, sheet.heightMm)} mm: ${sheet.pieces.length} pads, ${sheet.cuts.length} cuts`}
      {...(trueSize ? { style: { width: `${String(width)}mm`, height: `${String(height)}mm` } } : {})}
    >
      <rect className="stores-edge" width={sheet.widthMm} height={sheet.heightMm} />
      {sheet.offCuts.map((o) => (
        <g key={`${String(o.xMm)} ${String(o.yMm)}`}>
          <rect className="stores-offcut" x={o.xMm} y={o.yMm} width={o.widthMm} height={o.heightMm} />
          <text className="stores-offcut-name" x={o.xMm + 1.5} y={o.yMm + 4.5}>
            {size(o.widthMm, o.heightMm)}
          </text>
        </g>
      ))}
      {sheet.pieces.map((p) => (
        <g key={`${String(p.xMm)} ${String(p.yMm)}`}>
          <rect className="stores-piece" x={p.xMm} y={p.yMm} width={p.widthMm} height={p.heightMm} />
          {p.widthMm >= 6 && p.heightMm >= 4 && (
            <text className="stores-piece-name" x={p.xMm + 1} y={p.yMm + 3.6}>
              {names.get(p.asset)}
            </text>
          )}
        </g>
      ))}
      {sheet.cuts.map((c, i) => (
        <g key={`${String(c.fromXMm)} ${String(c.fromYMm)} ${String(c.toXMm)} ${String(c.toYMm)}`}>
          <line
            className={i < 4 ? 'stores-cut first' : 'stores-cut'}
            x1={c.fromXMm}
            y1={c.fromYMm}
            x2={c.toXMm}
            y2={c.toYMm}
          />
          <circle className="stores-cut-mark" cx={c.toXMm} cy={c.toYMm} r={1.9} />
          <text className="stores-cut-number" x={c.toXMm} y={c.toYMm + 0.9}>
            {i + 1}
          </text>
        </g>
      ))}
    </svg>
  );
}

/** Short names of machines on a sheet: A, B, C. */
export function letters(sheets: readonly Sheet[]): Map<string, string> {
  const assets = [...new Set(sheets.flatMap((s) => s.pieces.map((p) => p.asset)))];
  return new Map(assets.map((asset, i) => [asset, letter(i)]));
}

const letter = (i: number): string =>
  (i >= 26 ? String.fromCharCode(64 + Math.floor(i / 26)) : '') + String.fromCharCode(65 + (i % 26));

/** A sheet in words. */
export const sheetWords = (s: Sheet): string =>
  t`${s.product}, lot ${s.lot}, ${s.place}: ${size(s.widthMm, s.heightMm)}, ${mm(s.thicknessMm)} thick`;
