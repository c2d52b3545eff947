import { expect, test } from 'vitest';
import { csv } from './csv';

/** RFC 4180, section 2: quotes around commas and line ends, quotes doubled, lines end with CRLF. */
test('a table is written as RFC 4180 has it, and no cell becomes a formula', () => {
  expect(
    csv(
      ['a', 'b'],
      [
        ['x, y', 'it says "hot"'],
        ['=1+1', -2],
        [null, 'two\nlines'],
      ],
    ),
  ).toBe('a,b\r\n"x, y","it says ""hot"""\r\n\'=1+1,-2\r\n,"two\nlines"\r\n');
});
