/** A member that is not the same before and after. */
export interface Difference {
  /** Its place in words, as `kinds › server › dust out`; empty where the whole is a text. */
  readonly what: string;
  /** Null for nothing. */
  readonly before: string | null;
  readonly after: string | null;
}

/**
 * What differs between what stood in a line before and after: each is JSON, plain words, or null for nothing. Members that are
 * the same are left out.
 */
export function differences(before: string | null, after: string | null): Difference[] {
  const [was, is] = [membersOf(before), membersOf(after)];
  return [...new Set([...was.keys(), ...is.keys()])]
    .filter((what) => was.get(what) !== is.get(what))
    .map((what) => ({ what, before: was.get(what) ?? null, after: is.get(what) ?? null }));
}

function membersOf(text: string | null): Map<string, string> {
  const members = new Map<string, string>();
  if (text === null) return members;
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    value = text;
  }
  walk('', value, members);
  return members;
}

function walk(place: string, value: unknown, into: Map<string, string>): void {
  if (typeof value !== 'object' || value === null) {
    if (value !== null) into.set(place, typeof value === 'string' ? value : JSON.stringify(value));
    return;
  }
  for (const [name, member] of Object.entries(value))
    walk(place ? `${place} › ${inWords(name)}` : inWords(name), member, into);
}

/** The name of a member as people write: `dustOut` and `dust-out` are dust out. */
const inWords = (name: string): string =>
  name
    .replaceAll('-', ' ')
    .replace(/(?<=[a-z0-9])(?=[A-Z])/g, ' ')
    .toLowerCase();
