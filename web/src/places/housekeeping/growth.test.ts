import { expect, test } from 'vitest';
import { growthOf } from './growth';

const of = (day: string, databaseBytes: number, readings = 0) => ({
  day,
  databaseBytes,
  photoBytes: 0,
  readings,
  changes: 0,
});

test('a house of one day, and of six, has no pace yet', () => {
  expect(growthOf([], 1e9)).toBeNull();
  expect(growthOf([of('2026-03-01', 10)], 1e9)).toBeNull();
  expect(growthOf([of('2026-03-01', 10), of('2026-03-07', 20)], 1e9)).toBeNull();
});

test('the disk is full when what is left is used up at the pace of these days', () => {
  const growth = growthOf(
    [of('2026-03-01', 10_000_000, 100), of('2026-03-31', 40_000_000, 400)],
    300_000_000,
  );
  expect(growth).toEqual({ days: 30, bytes: 30_000_000, readings: 300, monthsLeft: 10 });
});

test('what was more than three months ago is not looked at', () => {
  const growth = growthOf(
    [of('2025-01-01', 1), of('2026-03-01', 50_000_000), of('2026-03-16', 65_000_000)],
    1_000_000_000,
  );
  expect(growth?.days).toBe(15);
  expect(growth?.bytes).toBe(15_000_000);
});

test('a house that became smaller never fills the disk', () => {
  expect(growthOf([of('2026-03-01', 20), of('2026-03-20', 10)], 5)?.monthsLeft).toBeNull();
});
