// By another name: what is looked up here was extracted from the server's sources, not from these.
import { i18n as spoken } from '@lingui/core';

/** A text of the server by its key, in the reader's language; null where that has none, as English has. */
export const translated = (id: string, values: Record<string, unknown> = {}): string | null =>
  // Its own keys alone: somebody's words may be called like what every object has.
  Object.hasOwn(spoken.messages, id) ? spoken._(id, values) : null;

/** One of the API's words (a level, a cause, a kind, a state) as people say it; in English hyphens become spaces. */
export const word = (of: string): string =>
  translated(of) ?? (HYPHENATED.has(of) ? of : of.replaceAll('-', ' '));

/** Terms of the trade that are written with a hyphen. */
const HYPHENATED: ReadonlySet<string> = new Set(['dust-out', 'blow-out', 'fan-swap']);
