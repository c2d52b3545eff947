import { i18n } from '@lingui/core';
import { plural } from '@lingui/core/macro';
import { afterEach, expect, test } from 'vitest';
import { speak } from './language';

afterEach(() => speak('en', ['en']));

const machines = (n: number) => plural(n, { one: '# machine', other: '# machines' });

// What the plural rules of the Unicode locale data say, by the browser's own (Intl.PluralRules): Russian has "one" for 21, French
// for 0.
test.each([
  ['ru-RU', 21, '21 machines'],
  ['fr-FR', 0, '0 machines'],
  ['en-GB', 1, '1 machine'],
])('English texts count in English before a browser in %s', async (locale, n, said) => {
  await speak('en', [locale]);
  expect(machines(n)).toBe(said);
});

test('numbers in texts are written as the browser does, where it counts alike', async () => {
  await speak('en', ['de-DE', 'en']);
  expect(machines(12345)).toBe('12.345 machines');
});

test('a language whose file is not there is English', async () => {
  await speak('xx', ['en']);
  expect(machines(2)).toBe('2 machines');
  expect(i18n.locale).toBe('en');
});
