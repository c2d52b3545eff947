import { useSyncExternalStore } from 'react';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { ProblemError, type Schemas, type TheirChange } from './client';

export type JobEntry = Schemas['JobEntry'];

/** An entry that waits on this device for its turn. */
export interface Waiting {
  seq?: number;
  jobId: number;
  key: string;
  version: number;
  madeAt: string;
  by: string | null;
  /** The account that made it; absent where there were none. */
  account?: string | undefined;
  entry: JobEntry;
  photo?: Blob | undefined;
}

/** An entry that the server would not take; its maker decides what becomes of it. */
export interface Rejected {
  seq?: number;
  waiting: Waiting;
  why: string;
  /** The same as template and values, where the server had it so. */
  says?: Schemas['Message'] | undefined;
  theirs: TheirChange[];
}

interface Kept extends DBSchema {
  answers: { key: string; value: unknown };
  outbox: { key: number; value: Waiting };
  rejected: { key: number; value: Rejected };
}

let opened: Promise<IDBPDatabase<Kept>> | null = null;

/** The device's own small database: answers last seen, and what has not reached the server yet. */
export function device(): Promise<IDBPDatabase<Kept>> {
  opened ??= openDB<Kept>('pyrometron', 2, {
    // The library waits for the transaction, whatever is still under way in it.
    // eslint-disable-next-line @typescript-eslint/no-misused-promises
    async upgrade(db, from, _to, transaction) {
      if (from < 1) {
        db.createObjectStore('answers');
        db.createObjectStore('outbox', { keyPath: 'seq', autoIncrement: true });
      }
      const rejected = db.createObjectStore('rejected', { keyPath: 'seq', autoIncrement: true });
      if (from === 1) {
        // The store had another name; what a technician has not decided on yet must not be lost.
        const old = transaction.objectStore('turned' as 'rejected');
        for (const item of await old.getAll()) await rejected.add(item);
        db.deleteObjectStore('turned' as 'rejected');
      }
    },
  });
  return opened;
}

/** Whether a failure means that nothing reached the server. */
export function isUnreached(error: unknown): boolean {
  return error instanceof ProblemError && error.answeredBy !== 'server';
}

/**
 * Asks the server, and without network gives the answer it gave last.
 * @param part What of the answer is kept, where all of it would be too much.
 */
export async function lastKnown<T>(
  name: string,
  ask: () => Promise<T>,
  part: (answer: T) => T = (answer) => answer,
): Promise<T> {
  try {
    const answer = await ask();
    // Nobody waits for the device, and one that keeps nothing is no reason to show nothing.
    void keep(name, part(answer)).catch(() => undefined);
    reached(true);
    return answer;
  } catch (error) {
    if (isUnreached(error)) reached(false);
    const kept = isUnreached(error)
      ? ((await (await device()).get('answers', name)) as T | undefined)
      : undefined;
    if (kept === undefined) throw error;
    return kept;
  }
}

let network = true;
const listeners = new Set<() => void>();

function reached(now: boolean) {
  if (network === now) return;
  network = now;
  for (const listener of listeners) listener();
}

/** Whether the last thing that was asked for reached the server; else what is shown is what was known last. */
export function useNetwork(): boolean {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => network,
  );
}

/** Keeps an answer for a time without network. */
export async function keep(name: string, answer: unknown): Promise<void> {
  await (await device()).put('answers', answer, name);
}
