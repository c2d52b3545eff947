import { expect, test } from 'vitest';
import { normalPassword } from './password';

test.each([
  ['a\u0308nderung der gezeiten', '\u00e4nderung der gezeiten'],
  ['\uff4belp lantern tide rope', 'kelp lantern tide rope'],
])('the same text is the same password', (one, other) => {
  expect(one).not.toBe(other);
  expect(normalPassword(one)).toBe(normalPassword(other));
});
