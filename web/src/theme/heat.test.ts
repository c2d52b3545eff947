import { expect, test } from 'vitest';
import { contrast } from './contrast';
import { heat, HEAT_STEPS, heatStep } from './heat';

test('a machine that has lost nothing stays unlit, however warm; at its limit it is brightest', () => {
  expect(heat(0, 2)).toBe('rgb(140 131 120)');
  expect(heat(9)).toBe('rgb(200 64 28)');
  expect(heat(40)).toBe('rgb(246 183 60)');
  expect(heat(0, -1)).toBe('rgb(246 183 60)');
});

test('words on every step of heat can be read', () => {
  for (const { colour, text } of HEAT_STEPS)
    expect(contrast(colour, text), colour).toBeGreaterThanOrEqual(4.5);
  expect(heatStep(2.9)).toBeUndefined();
  expect(heatStep(7)?.kelvin).toBe(6);
  expect(heatStep(40)?.kelvin).toBe(15);
});
