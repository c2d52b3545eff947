import { expect, test } from 'vitest';
import { heat } from './heat';

test('a machine that has lost nothing stays unlit, however warm; at its limit it is brightest', () => {
  expect(heat(0, 2)).toBe('rgb(140 131 120)');
  expect(heat(9)).toBe('rgb(200 64 28)');
  expect(heat(40)).toBe('rgb(246 183 60)');
  expect(heat(0, -1)).toBe('rgb(246 183 60)');
});
