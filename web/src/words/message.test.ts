import { i18n } from '@lingui/core';
import { compileMessage } from '@lingui/message-utils/compileMessage';
import { afterEach, expect, test } from 'vitest';
import { ProblemError } from '../api/client';
import { refusal, say, sayAll } from './message';
import { setPreferences } from './preferences';

const kelvin = (name: string, number: number, plain: string) => ({
  name,
  unit: 'kelvin',
  number,
  text: null,
  messages: null,
  plain,
});
const word = (name: string, unit: string, text: string, plain = text) => ({
  name,
  unit,
  number: null,
  text,
  messages: null,
  plain,
});

afterEach(() => setPreferences({ unit: 'C' }));

const warmer = {
  template: '{part} is {kelvin} warmer at {air}, and {change} since {day}.',
  values: [
    word('part', 'part', 'hotspot', 'Hot spot'),
    kelvin('kelvin', 5, '5 K'),
    { ...kelvin('air', 25, '25 °C'), unit: 'celsius' },
    kelvin('change', 2, '+2 K'),
    word('day', 'date', '2020-03-01', '1 Mar 2020'),
  ],
};

test('a sentence is put into words in the reader’s units', () => {
  expect(say(warmer)).toMatch(/^Hot spot is 5 K warmer at 25 °C, and \+2 K since .*2020\.$/);
  setPreferences({ unit: 'F' });
  // A difference of a kelvin is 1.8 °F; a temperature has its own zero.
  expect(say(warmer)).toMatch(/^Hot spot is 9 °F warmer at 77 °F, and \+3\.6 °F since/);
});

test('lists and counts', () => {
  expect(
    say({
      template: '{what} ({count})',
      values: [
        {
          ...word('what', 'list', ' and '),
          messages: [
            { template: 'dust', values: [] },
            { template: 'paste', values: [] },
          ],
        },
        { ...kelvin('count', 12345, '12345 readings'), unit: 'count' },
      ],
    }),
  ).toBe('dust and paste (12,345 readings)');
  expect(sayAll(null, { template: 'One.', values: [] }, undefined, { template: 'Two.', values: [] })).toBe(
    'One. Two.',
  );
});

test('a sentence, what is counted in it and an API word are said in the reader’s language', () => {
  const message = {
    template: "{host}'s {level} and {jobs}",
    values: [
      word('host', 'text', 'WS-01'),
      word('level', 'word', 'dust-out'),
      { ...kelvin('jobs', 2, '2 jobs'), unit: 'count', text: 'job' },
    ],
  };
  expect(say(message)).toBe("WS-01's dust-out and 2 jobs");
  i18n.loadAndActivate({
    locale: 'de',
    messages: {
      "{host}''s {level} and {jobs}": compileMessage('{level} von {host}, {jobs}'),
      'dust-out': 'Entstauben',
      '# job': compileMessage('{n, plural, one {# Auftrag} other {# Aufträge}}'),
    },
  });
  try {
    expect(say(message)).toBe('Entstauben von WS-01, 2 Aufträge');
    // One that the language has no word for stays in English.
    expect(say({ template: 'It is the room.', values: [] })).toBe('It is the room.');
    expect(say({ template: 'constructor', values: [] })).toBe('constructor');
  } finally {
    i18n.activate('en');
  }
});

test('a refusal is said by its template where the server gives one', () => {
  const says = { template: 'Air of {air}.', values: [{ ...kelvin('air', 25, '25 °C'), unit: 'celsius' }] };
  setPreferences({ unit: 'F' });
  expect(refusal(new ProblemError({ detail: 'Air of 25 °C.', says }))).toBe('Air of 77 °F.');
  expect(refusal(new ProblemError({ detail: 'Air of 25 °C.' }))).toBe('Air of 25 °C.');
});
