import { expect, test } from 'vitest';
import { contrast } from './contrast';
import { DARK, LIGHT } from './tokens';

test('black on white has the contrast of 21, and the order does not matter', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5);
  expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2);
  expect(contrast('#ffffff', '#777777')).toBe(contrast('#777777', '#ffffff'));
});

/** WCAG 2.2, 1.4.3 (text, 4.5) and 1.4.11 (what must be seen to be used, 3). */
test.each([
  ['day', LIGHT],
  ['night', DARK],
])('all pairs of the look can be read by %s', (_, t) => {
  for (const ground of [t.paper, t.panel, t.track])
    expect(contrast(t.ink, ground), `ink on ${ground}`).toBeGreaterThanOrEqual(7);
  for (const ground of [t.paper, t.panel])
    expect(contrast(t.quiet, ground), `quiet on ${ground}`).toBeGreaterThanOrEqual(4.5);
  for (const ground of [t.paper, t.panel])
    expect(contrast(t.edge, ground), `edge on ${ground}`).toBeGreaterThanOrEqual(3);
});
