import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { mm, size } from '../../words/amounts';
import { cutMarks } from './cutMarks';

type Sheet = Schemas['SheetToCutAnswer'];

/** Room around a sheet for the numbers of its cuts, mm. */
const MARGIN = 6;

/** Of the mark with a cut's number, and the width and height that a letter takes, mm. */
const MARK = 1.9,
  LETTER = 1.95,
  LINE = 3.2;

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
  const marks = cutMarks(sheet.cuts, MARK);
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
          <OffCutName of={o} />
        </g>
      ))}
      {sheet.pieces.map((p) => (
        <g key={`${String(p.xMm)} ${String(p.yMm)}`}>
          <rect className="stores-piece" x={p.xMm} y={p.yMm} width={p.widthMm} height={p.heightMm} />
          {p.widthMm >= 4 && p.heightMm >= 4 && (
            <text
              className="stores-piece-name"
              x={p.xMm + p.widthMm / 2}
              y={p.yMm + p.heightMm / 2 + LINE / 3}
            >
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
          <circle className="stores-cut-mark" cx={marks[i]!.x} cy={marks[i]!.y} r={MARK} />
          <text className="stores-cut-number" x={marks[i]!.x} y={marks[i]!.y + 0.9}>
            {i + 1}
          </text>
        </g>
      ))}
    </svg>
  );
}

/** The size of what goes back to the shelf, upright where it is narrow, nowhere where it has no room. */
function OffCutName({ of: o }: { of: Sheet['offCuts'][number] }) {
  const words = size(o.widthMm, o.heightMm);
  const long = words.length * LETTER + LINE;
  const upright = o.widthMm < long;
  if (Math.min(o.widthMm, o.heightMm) < 2 * LINE || (upright && o.heightMm < long)) return null;
  const [x, y] = [o.xMm + o.widthMm / 2, o.yMm + o.heightMm / 2];
  return (
    <text
      className="stores-offcut-name"
      x={x}
      y={y + LINE / 3}
      {...(upright ? { transform: `rotate(-90 ${String(x)} ${String(y)})` } : {})}
    >
      {words}
    </text>
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
