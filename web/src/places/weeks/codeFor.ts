/** A code that stands in addresses, made from a name: its letters and digits, with a number where it is taken. */
export function codeFor(name: string, taken: readonly string[]): string {
  const plain = name
    .normalize('NFD')
    // What is left of é is an e and its accent.
    .replace(/\p{M}/gu, '')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 30);
  const code = plain === '' ? 'person' : plain;
  if (!taken.includes(code)) return code;
  let n = 2;
  while (taken.includes(`${code}-${String(n)}`)) n++;
  return `${code}-${String(n)}`;
}
