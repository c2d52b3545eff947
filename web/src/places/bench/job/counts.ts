import type { Schemas } from '../../../api/client';

type Count = Schemas['JobCount'];

/** How far one kind of thing is counted out, or back in. */
export function countsOf(job: Schemas['JobAnswer'], what: Schemas['CountOf'], going: 'out' | 'in') {
  const known = Object.fromEntries(job.expected.filter((c) => c.what === what).map((c) => [c.item, c.out]));
  const items = [
    ...new Set([...Object.keys(known), ...job.counts.filter((c) => c.what === what).map((c) => c.item)]),
  ];
  const of = (item: string): Count =>
    job.counts.find((c) => c.what === what && c.item === item) ?? { what, item, out: 0, in: 0, place: null };
  const totals = items.map(of);
  const isExcused = (item: string | null) =>
    job.excuses.some((e) => e.what === what && ((e.item ?? null) === null || e.item === item));
  const lacking = totals.filter((c) => (going === 'in' ? c.out !== c.in : c.out < (known[c.item] ?? 0)));
  return {
    known,
    items,
    of,
    out: totals.reduce((n, c) => n + c.out, 0),
    back: totals.reduce((n, c) => n + c.in, 0),
    /** What does not meet; what was excused on the way out still has to go in as far as it came out. */
    open: going === 'in' ? lacking : lacking.filter((c) => !isExcused(c.item)),
    /** Whether nothing was counted, and nobody said why. */
    nothing: going === 'out' && items.length === 0 && !isExcused(null),
    /** What one tap counts: all as the notes list them, or all that came out back in. */
    listed: totals
      .filter((c) => (going === 'out' ? (known[c.item] ?? 0) > c.out : c.out > c.in))
      .map((c): Count => ({ ...c, [going]: going === 'out' ? known[c.item]! : c.out })),
  };
}

export type Counts = ReturnType<typeof countsOf>;
