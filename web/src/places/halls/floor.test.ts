import { expect, test } from 'vitest';
import { inRows, moved, type Plan } from './floor';

const plan: Plan = new Map([
  ['A', { column: 0, row: 0 }],
  ['B', { column: 1, row: 0 }],
]);

test('a machine that is dragged onto another one changes places with it, and none leaves the plan', () => {
  expect(moved(plan, 'A', { column: 1, row: 0 })).toEqual(
    new Map([
      ['A', { column: 1, row: 0 }],
      ['B', { column: 0, row: 0 }],
    ]),
  );
  expect(moved(plan, 'A', { column: -3, row: 900 }).get('A')).toEqual({ column: 0, row: 199 });
});

test('machines without a place are put in rows of twelve after what is drawn', () => {
  const tags = Array.from({ length: 14 }, (_, i) => `N${String(i)}`);
  const all = inRows(plan, tags);
  expect(all.get('N0')).toEqual({ column: 2, row: 0 });
  expect(all.get('N10')).toEqual({ column: 0, row: 1 });
  expect(new Set([...all.values()].map((p) => `${String(p.column)}/${String(p.row)}`)).size).toBe(16);
});
