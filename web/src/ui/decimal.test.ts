import { expect, test } from 'vitest';
import { readDecimal } from './decimal';

test.each([
  ['85,5', '85.5'],
  ['85.5', '85.5'],
  ['-3,25', '-3.25'],
  ['1.234,5', '1234.5'],
  ['1,234.5', '1234.5'],
  ['85', '85'],
  ['85,', '85.'],
  [' 22,5 °C', '22.5'],
  ['+4', '4'],
  ['', ''],
])('%s is read as %s', (typed, read) => expect(readDecimal(typed)).toBe(read));
