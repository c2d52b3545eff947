import { expect, test } from 'vitest';
import { cutMarks } from './cutMarks';

const cut = (fromXMm: number, fromYMm: number, toXMm: number, toYMm: number) => ({
  fromXMm,
  fromYMm,
  toXMm,
  toYMm,
});

test('a number stands at the end of its cut, and moves where another stands there', () => {
  const marks = cutMarks([cut(0, 10, 40, 10), cut(40, 0, 40, 10), cut(39, 0, 39, 10.5)], 1.9);
  expect(marks).toEqual([
    { x: 40, y: 10 },
    { x: 40, y: 0 },
    { x: 39, y: expect.closeTo(5.25, 5) as number },
  ]);
});

test('where there is no room at all it stands at the end', () =>
  expect(cutMarks([cut(0, 0, 1, 0), cut(0, 0, 1, 0)], 1.9)[1]).toEqual({ x: 1, y: 0 }));
