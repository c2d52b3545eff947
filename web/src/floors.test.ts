import { expect, test } from 'vitest';

/** What the files of each folder may import from, beside their own folder. Places do not know one another. */
const FLOORS: Record<string, readonly string[]> = {
  theme: [],
  api: [],
  words: ['api'],
  ui: ['api', 'words', 'theme'],
  places: ['api', 'words', 'theme', 'ui'],
  shell: ['api', 'words', 'theme', 'ui'],
};

const sources = import.meta.glob<string>('./**/*.{ts,tsx}', {
  query: '?raw',
  import: 'default',
  eager: true,
});

/** The folder that a file belongs to: a place counts by itself. */
function folderOf(path: string): string {
  const [first, second] = path.split('/');
  return first === 'places' ? `places/${second!}` : first!;
}

/** What lies outside this folder and is read by tests: what the tests of both sides share, and what the server's build wrote. */
const OUTSIDE = ['tests', 'artifacts'];

function importsOf(path: string, source: string): string[] {
  const base = new URL(`file:///${path}`);
  return [...source.matchAll(/(?:from|import)\s*\(?'(\.[^']+)'/g)]
    .map((m) => new URL(m[1]!, base).pathname.slice(1))
    .filter((target) => target.includes('/'));
}

test('folders import from lower ones only, and no place from another', () => {
  const wrong = Object.entries(sources).flatMap(([file, source]) => {
    const path = file.slice(2);
    const own = folderOf(path);
    const floor = FLOORS[own.split('/')[0]!];
    if (!floor) return [];
    return importsOf(path, source)
      .map(folderOf)
      .filter((target) => target !== own && !OUTSIDE.includes(target) && !floor.includes(target))
      .map((target) => `${path} imports from ${target}`);
  });
  expect(wrong).toEqual([]);
  expect(Object.keys(sources).length).toBeGreaterThan(100);
});
