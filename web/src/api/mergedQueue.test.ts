import { expect, test } from 'vitest';
import type { Schemas } from './client';
import { mergedQueue } from './mergedQueue';

type Queue = Schemas['QueueAnswer'];

const item = (asset: string, rank: number, reason = 'as it was') =>
  ({ asset, rank, reason }) as Queue['items'][number];

const queue = (items: Queue['items'], more: Partial<Queue> = {}) =>
  ({ items, mark: 'first', since: null, gone: null, ...more }) as Queue;

const before = queue(['A', 'B', 'C', 'D', 'E'].map((tag, i) => item(tag, i + 1)));

test('a row that moved up is put in at its rank, and those behind it move down', () => {
  const after = mergedQueue(before, queue([item('D', 1, 'warmer')], { mark: 'second', since: 'first' }));
  expect(after.items.map((i) => `${String(i.rank)} ${i.asset} ${i.reason}`)).toEqual([
    '1 D warmer',
    '2 A as it was',
    '3 B as it was',
    '4 C as it was',
    '5 E as it was',
  ]);
  expect(after.mark).toBe('second');
  // What did not move is the same object: nobody draws it again.
  expect(after.items[4]).toBe(before.items[4]);
});

test('machines that left are gone, new ones stand at their rank, also at the end', () => {
  const after = mergedQueue(
    before,
    queue([item('F', 2), item('G', 5)], { mark: 'second', since: 'first', gone: ['A', 'C'] }),
  );
  expect(after.items.map((i) => [i.asset, i.rank])).toEqual([
    ['B', 1],
    ['F', 2],
    ['D', 3],
    ['E', 4],
    ['G', 5],
  ]);
});

test('a whole answer, or a change of another queue than the one at hand, stands as it came', () => {
  const whole = queue([item('X', 1)], { mark: 'second' });
  expect(mergedQueue(before, whole)).toBe(whole);
  expect(mergedQueue(undefined, whole)).toBe(whole);
});
