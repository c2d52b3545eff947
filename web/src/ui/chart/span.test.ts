import { expect, test } from 'vitest';
import { closer, lastDays, within, type Span } from './span';

const DAY = 86_400_000;
const ALL: Span = [0, 400 * DAY];

test('a stretch stays within the whole and is never too short to read', () => {
  expect(within([-50 * DAY, 100 * DAY], ALL)).toEqual([0, 150 * DAY]);
  expect(within([395 * DAY, 396 * DAY], ALL)).toEqual([380 * DAY, 400 * DAY]);
  expect(within([-1000 * DAY, 1000 * DAY], ALL)).toEqual(ALL);
});

test('looking closer halves it about the point that is read', () => {
  expect(closer(ALL, 200 * DAY, ALL)).toEqual([100 * DAY, 300 * DAY]);
  expect(closer([0, 20 * DAY], 5 * DAY, ALL)).toEqual([0, 20 * DAY]);
});

test('the last ninety days keep some of what is to come', () =>
  expect(lastDays(80, 300 * DAY, ALL)).toEqual([220 * DAY, 320 * DAY]));
