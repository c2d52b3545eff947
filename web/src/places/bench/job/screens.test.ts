import { expect, test } from 'vitest';
import { screenOf, screensOf } from './screens';
import { testStep as step } from '../testStep';

const CARD = [
  step('prepare', 'prepare'),
  step('owner-told', 'make-safe', { gate: ['Its owner knows'] }),
  step('power-off', 'make-safe', { gate: ['It is off'], confirmedOneByOne: true }),
  step('ground', 'make-safe'),
  step('seal', 'open', { form: 'seal-inspection' }),
  step('way-round', 'open'),
  step('cover-off', 'open'),
  step('screws-out', 'open', { form: 'screws-out' }),
  step('blow', 'clean'),
  step('brush', 'clean'),
  step('paste-on', 'paste'),
  step('cooler-on', 'paste'),
];

test('plain ticks of one stage stand together, with the look or the count that they lead to', () => {
  expect(screensOf(CARD).map((s) => s.map((t) => t.id))).toEqual([
    ['prepare', 'owner-told'],
    ['power-off'],
    ['ground', 'seal'],
    ['way-round', 'cover-off', 'screws-out'],
    ['blow', 'brush'],
    ['paste-on'],
    ['cooler-on'],
  ]);
});

test('what is done of a screen is not shown again, and a step that is done stands by itself', () => {
  const begun = CARD.map((s) => (s.id === 'way-round' ? { ...s, doneAt: '2026-03-02T09:00:00Z' } : s));
  const shown = (id: string) =>
    screenOf(
      begun,
      begun.find((s) => s.id === id)!,
    ).map((s) => s.id);
  expect(shown('cover-off')).toEqual(['cover-off', 'screws-out']);
  expect(shown('way-round')).toEqual(['way-round']);
});

test('a long list of ticks is cut', () => {
  const many = Array.from({ length: 8 }, (_, i) => step(`own-${String(i)}`, 'clean'));
  expect(screensOf(many).map((s) => s.length)).toEqual([6, 2]);
});
