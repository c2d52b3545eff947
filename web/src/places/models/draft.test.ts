import { beforeEach, describe, expect, test } from 'vitest';
import type { Schemas } from '../../api/client';
import { aboutWords, differences, draftOf, dropDraft, keepDraft } from './draft';

const notes = {
  model: 'Petrel desktop',
  widthMm: 300,
  heightMm: 200,
  screws: [],
  pads: [],
  connectors: [],
  fans: [],
  clips: [],
  traps: [],
} as unknown as Schemas['ModelNotes'];

const store = new Map<string, string>();

beforeEach(() => {
  store.clear();
  globalThis.localStorage = {
    getItem: (key: string) => store.get(key) ?? null,
    setItem: (key: string, value: string) => store.set(key, value),
    removeItem: (key: string) => store.delete(key),
  } as unknown as Storage;
});

describe('a draft of notes', () => {
  test('stays under its model, whatever version others keep meanwhile, until it is dropped', () => {
    keepDraft({ version: 3, notes: { ...notes, traps: ['lid cable'] } });
    expect(draftOf('Petrel desktop')).toEqual({ version: 3, notes: { ...notes, traps: ['lid cable'] } });
    expect(draftOf('Sorrel card')).toBeNull();
    dropDraft('Petrel desktop');
    expect(draftOf('Petrel desktop')).toBeNull();
  });

  test('what is none is passed over', () => {
    for (const wrong of ['{', '[]', '{"notes":{}}', '{"version":1,"notes":{"model":"another"}}']) {
      store.set('pyrometron.draft.notes.Petrel desktop', wrong);
      expect(draftOf('Petrel desktop')).toBeNull();
    }
  });
});

describe('differences', () => {
  test('are named by their part', () => {
    expect(differences(notes, notes)).toEqual([]);
    expect(differences(notes, { ...notes, traps: ['lid cable'], clips: ['left'] })).toEqual([
      'clips',
      'traps',
    ]);
    expect(differences(notes, { ...notes, widthMm: 310 })).toEqual(['size, chip, paste or test']);
  });
});

test('what a note is about is said in our words, a sentence of the house as it is', () => {
  expect(aboutWords('screws')).toBe('screws');
  expect(aboutWords('pad 3')).toBe('pad 3');
  expect(aboutWords('screw the hinge last')).toBe('screw the hinge last');
  expect(aboutWords('constructor')).toBe('constructor');
});
