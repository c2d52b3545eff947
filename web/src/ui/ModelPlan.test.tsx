import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import type { Schemas } from '../api/client';
import { ModelPlan } from './ModelPlan';

const NOTES = {
  model: 'Sorrel',
  widthMm: 200,
  heightMm: 100,
  screws: [
    { number: 1, place: 'cover', xMm: 10, yMm: 10, lengthMm: 4, driver: 'PH1', order: null },
    { number: 7, place: 'cooler', xMm: 60, yMm: 30, lengthMm: 6, driver: 'PH1', order: null },
    { number: 8, place: 'cooler', xMm: 90, yMm: 60, lengthMm: 6, driver: 'PH1', order: null },
  ],
  pads: [{ number: 1, part: 'memory', xMm: 100, yMm: 10, widthMm: 14, heightMm: 12, thicknessMm: 1.5 }],
} as unknown as Schemas['ModelNotes'];

test('the plan says in words what it shows', () => {
  const all = renderToStaticMarkup(<ModelPlan notes={NOTES} show="both" order={[]} />);
  expect(all).toContain('screw 1, 4 mm PH1, cover; screw 7, 6 mm PH1, cooler; screw 8');
  expect(all).toContain('pad 1, memory, 1.5 mm');
});

test('tightening shows the screws of the cooler alone and one line through them in their order', () => {
  const svg = renderToStaticMarkup(<ModelPlan notes={NOTES} show="screws" order={[8, 7]} only="cooler" />);
  expect(svg).not.toContain('screw 1,');
  expect(svg).toContain('points="90,60 60,30"');
});

test('a model of which nothing is known draws nothing', () => {
  const empty = { ...NOTES, screws: [], pads: [] };
  expect(renderToStaticMarkup(<ModelPlan notes={empty} show="both" order={[]} />)).toBe('');
});
