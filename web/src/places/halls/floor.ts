import type { Schemas } from '../../api/client';

export type Place = Schemas['FloorPlace'];

/** Cells by tag. */
export type Plan = ReadonlyMap<string, Place>;

/** As on the server: a plan has no more columns and no more rows. */
const MOST = 200;

/** Machines that stand in a row where nobody has drawn one. */
const A_ROW = 12;

const same = (a: Place, b: Place) => a.column === b.column && a.row === b.row;

/** The plan with a machine in another cell; where one stands there already, they change places. */
export function moved(plan: Plan, tag: string, to: Place): Plan {
  const place = {
    column: Math.min(MOST - 1, Math.max(0, to.column)),
    row: Math.min(MOST - 1, Math.max(0, to.row)),
  };
  const before = plan.get(tag);
  const next = new Map(plan);
  const other = [...plan].find(([t, p]) => t !== tag && same(p, place));
  if (other && before) next.set(other[0], before);
  else if (other) return plan;
  next.set(tag, place);
  return next;
}

/** The plan with more machines, in rows below what is drawn. */
export function inRows(plan: Plan, tags: readonly string[]): Plan {
  const next = new Map(plan);
  const last = Math.max(-1, ...[...plan.values()].map((p) => p.row));
  const begun = [...plan.values()].filter((p) => p.row === last).map((p) => p.column);
  const from = last < 0 ? 0 : last * A_ROW + Math.max(0, ...begun) + 1;
  tags.forEach((tag, i) => {
    const at = Math.max(from, 0) + i;
    next.set(tag, { column: at % A_ROW, row: Math.floor(at / A_ROW) });
  });
  return next;
}
