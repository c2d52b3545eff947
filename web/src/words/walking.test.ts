import { expect, test } from 'vitest';
import { walkingOrder } from './walking';

test('a zone is walked row by row, every other one backwards, and what is not on the plan by tag', () => {
  const at = (asset: string, column?: number, row = 0) => ({
    asset,
    place: column === undefined ? null : { column, row },
  });
  const order = walkingOrder([at('PC-10'), at('D', 1, 1), at('A', 0), at('C', 4, 1), at('PC-9'), at('B', 3)]);
  expect(order.map((m) => m.asset)).toEqual(['A', 'B', 'C', 'D', 'PC-9', 'PC-10']);
});
