import { describe, expect, test } from 'vitest';
import { differences } from './differences';

describe('what differs in a line', () => {
  test('of two objects only the members that are not the same, by their place', () => {
    expect(
      differences(
        '{"margin":6,"kinds":{"server":12,"usedHard":8},"note":null}',
        '{"margin":7,"kinds":{"server":12,"usedHard":6},"note":"dry"}',
      ),
    ).toEqual([
      { what: 'margin', before: '6', after: '7' },
      { what: 'kinds › used hard', before: '8', after: '6' },
      { what: 'note', before: null, after: 'dry' },
    ]);
  });

  test('lists are compared place by place; one that became shorter says what is gone', () => {
    expect(differences('["a","b"]', '["a"]')).toEqual([{ what: '1', before: 'b', after: null }]);
  });

  test('plain words, and nothing at all, are told as they stand', () => {
    expect(differences('Whelk', 'Cockle')).toEqual([{ what: '', before: 'Whelk', after: 'Cockle' }]);
    expect(differences(null, 'undone')).toEqual([{ what: '', before: null, after: 'undone' }]);
    expect(differences(null, null)).toEqual([]);
  });

  test('what only looks like JSON is words', () => {
    expect(differences('{torn', null)).toEqual([{ what: '', before: '{torn', after: null }]);
  });

  test('a number as words and as JSON is the same', () => {
    expect(differences('7', '7.0')).toEqual([]);
  });
});
