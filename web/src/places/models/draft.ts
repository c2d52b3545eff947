import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';

type Notes = Schemas['ModelNotes'];

/** Notes as somebody began to change them, with the version they were looking at. */
export interface Draft {
  version: number;
  notes: Notes;
}

const keyOf = (model: string) => `pyrometron.draft.notes.${model}`;

/** What was begun on a model on this device and neither kept nor given up; survives reloads and what others keep meanwhile. */
export function draftOf(model: string): Draft | null {
  const kept = localStorage.getItem(keyOf(model));
  if (!kept) return null;
  try {
    const draft = JSON.parse(kept) as Partial<Draft>;
    return typeof draft.version === 'number' && draft.notes?.model === model ? (draft as Draft) : null;
  } catch {
    return null;
  }
}

export function keepDraft(draft: Draft): void {
  localStorage.setItem(keyOf(draft.notes.model), JSON.stringify(draft));
}

export function dropDraft(model: string): void {
  localStorage.removeItem(keyOf(model));
}

const PARTS = [
  ['screws', t`screws`],
  ['pads', t`pads`],
  ['connectors', t`connectors`],
  ['fans', t`fans`],
  ['clips', t`clips`],
  ['traps', t`traps`],
] as const;

const ABOUT = new Map<string, string>([
  ...PARTS,
  ['screw', t`screw`],
  ['pad', t`pad`],
  ['connector', t`connector`],
  ['fan', t`fan`],
  ['chip', t`chip`],
  ['paste', t`paste`],
  ['pattern', t`paste`],
  ['loop', t`cooling`],
  ['test', t`test`],
]);

/** What a note is about: one of our words, perhaps with a number or name behind it, or a sentence of the house. */
export function aboutWords(about: string): string {
  const [first = '', ...rest] = about.split(' ');
  const word = ABOUT.get(first);
  return word && rest.length <= 1 ? [word, ...rest].join(' ') : about;
}

/** In which parts two states of the notes differ, in words. */
export function differences(mine: Notes, theirs: Notes): string[] {
  const differs = (part: keyof Notes) => JSON.stringify(mine[part]) !== JSON.stringify(theirs[part]);
  const rest = (Object.keys({ ...mine, ...theirs }) as (keyof Notes)[]).filter(
    (part) => !PARTS.some(([listed]) => listed === part),
  );
  return [
    ...PARTS.flatMap(([part, name]) => (differs(part) ? [name] : [])),
    ...(rest.some(differs) ? [t`size, chip, paste or test`] : []),
  ];
}
