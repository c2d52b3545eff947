import { afterEach, expect, test } from 'vitest';
import { say, sayAll } from './message';
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

test('lists, counts and places without a value', () => {
  expect(
    say({
      template: '{what} ({count}) {unknown}',
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
  ).toBe('dust and paste (12,345 readings) {unknown}');
  expect(sayAll(null, { template: 'One.', values: [] }, undefined, { template: 'Two.', values: [] })).toBe(
    'One. Two.',
  );
});
