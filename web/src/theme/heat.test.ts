import { expect, test } from 'vitest';
import { heat, HEAT_STEPS, heatStep } from './heat';

test('a machine that has lost nothing stays unlit, however warm; at its limit it is brightest', () => {
  expect(heat(0, 2)).toBe('rgb(140 131 120)');
  expect(heat(9)).toBe('rgb(200 64 28)');
  expect(heat(40)).toBe('rgb(246 183 60)');
  expect(heat(0, -1)).toBe('rgb(246 183 60)');
});

/** WCAG 2.2, relative luminance and contrast ratio. */
function contrast(one: string, other: string): number {
  const luminance = (hex: string) => {
    const [r, g, b] = [1, 3, 5].map((i) => {
      const c = parseInt(hex.slice(i, i + 2), 16) / 255;
      return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
    }) as [number, number, number];
    return 0.2126 * r + 0.7152 * g + 0.0722 * b;
  };
  const [light, dark] = [luminance(one), luminance(other)].sort((a, b) => b - a) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

test('words on every step of heat can be read', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5);
  for (const { colour, text } of HEAT_STEPS)
    expect(contrast(colour, text), colour).toBeGreaterThanOrEqual(4.5);
  expect(heatStep(2.9)).toBeUndefined();
  expect(heatStep(7)?.kelvin).toBe(6);
  expect(heatStep(40)?.kelvin).toBe(15);
});
