import { t } from '@lingui/core/macro';
import { useSyncExternalStore } from 'react';
import { api, unwrap, ProblemError, type Schemas } from './client';
import { device, keep, type JobEntry, type Rejected, type Waiting } from './kept';
import { fateOf } from './fate';
import { lastSession } from './session';

type Job = Schemas['JobAnswer'];

/** What is on this device and not yet on the server. */
export interface OutboxState {
  waiting: readonly Waiting[];
  rejected: readonly Rejected[];
  unreached: boolean;
  /** Why nothing is sent until somebody does something about it; everything is kept. */
  held: string | null;
  /** Jobs as the server had them when the last entry arrived: they change in the same breath as what waits. */
  arrived: ReadonlyMap<number, Job>;
}

/** What may come with an entry: a photo's bytes, and how long ago it happened if that was not just now. */
export interface Besides {
  photo?: Blob;
  secondsAgo?: number;
}

/** After a failure to reach the server it is tried again this often, ms. */
const RETRY = 4000;

const LOCK = 'pyrometron-outbox';

const REACHED = { unreached: false, held: null };

/**
 * The queue of what was done at the bench. An entry is on this device's disk before anything is shown as kept; it reaches
 * the server once, in order, whenever there is network; what the server refuses is shown to its maker and never dropped.
 */
export class Outbox {
  #state: OutboxState = { waiting: [], rejected: [], unreached: false, held: null, arrived: new Map() };
  readonly #listeners = new Set<() => void>();
  readonly #arrived = new Set<(job: Job) => void>();
  #sending: Promise<void> | null = null;
  #retry: ReturnType<typeof setTimeout> | undefined;
  /** How often the server has broken over an entry. */
  readonly #faults = new Map<number, number>();

  constructor() {
    if (typeof window === 'undefined') return;
    window.addEventListener('online', () => void this.send());
    void this.#refresh().then(() => this.send());
  }

  readonly subscribe = (listener: () => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  readonly state = () => this.#state;

  /** Calls back with the job as the server has it, after each entry that arrived. */
  onArrival(listener: (job: Job) => void): () => void {
    this.#arrived.add(listener);
    return () => this.#arrived.delete(listener);
  }

  /** Puts an entry on disk and tries to send it. Resolves when it has arrived, was refused, or has to wait. */
  async add(
    job: { id: number; version: number },
    entry: JobEntry,
    { photo, secondsAgo = 0 }: Besides = {},
  ): Promise<void> {
    await this.#put({
      jobId: job.id,
      key: crypto.randomUUID(),
      version: job.version,
      madeAt: new Date(Date.now() - secondsAgo * 1000).toISOString(),
      by: localStorage.getItem('pyrometron.name'),
      account: lastSession()?.account ?? undefined,
      entry,
      photo,
    });
    await this.send();
  }

  /** Sends what waits, oldest first; one sender at a time over all tabs of this device. */
  async send(): Promise<void> {
    // An entry added while another is on its way goes with the next round.
    while (this.#sending) await this.#sending.catch(() => undefined);
    clearTimeout(this.#retry);
    this.#sending = this.#sendAlone();
    try {
      await this.#sending;
    } finally {
      // Whatever went wrong, the next entry gets its turn.
      this.#sending = null;
    }
  }

  /** Forgets a refused entry: theirs stands. */
  async discard(rejected: Rejected): Promise<void> {
    if (rejected.seq !== undefined) await (await device()).delete('rejected', rejected.seq);
    await this.#refresh();
  }

  /** Sends a refused entry again, now that the other one has been seen. */
  async resubmit(rejected: Rejected): Promise<void> {
    const path = { id: rejected.waiting.jobId };
    const { version } = await unwrap(api.GET('/api/v1/jobs/{id}', { params: { path } }));
    const again: Waiting = { ...rejected.waiting, key: crypto.randomUUID(), version };
    delete again.seq;
    await this.#put(again);
    await this.discard(rejected);
    await this.send();
  }

  async #put(waiting: Waiting): Promise<void> {
    const transaction = (await device()).transaction('outbox', 'readwrite', { durability: 'strict' });
    await transaction.store.add(waiting);
    await transaction.done;
    await this.#refresh();
  }

  async #sendAlone(): Promise<void> {
    await navigator.locks.request(LOCK, () => this.#sendAll());
  }

  async #sendAll(): Promise<void> {
    const db = await device();
    for (;;) {
      const all = await db.getAll('outbox');
      const here = lastSession()?.account ?? null;
      // What somebody made is sent in their name alone: it waits until they sign in.
      const next = all.find((w) => here === null || w.account === undefined || w.account === here);
      if (!next) {
        const others = all.map((w) => w.by ?? w.account ?? '');
        await this.#refresh({ unreached: false, held: others.length > 0 ? ofOthers(others) : null });
        return;
      }
      try {
        const job = await post(next);
        await keep(`job ${String(next.jobId)}`, job);
        await db.delete('outbox', next.seq!);
        await this.#refresh(REACHED, job);
        this.#arrived.forEach((listener) => listener(job));
      } catch (error) {
        if (!(error instanceof ProblemError)) throw error;
        const faults = this.#faults.get(next.seq!) ?? 0;
        const fate = fateOf(error, faults);
        if (fate === 'reject') {
          await this.#reject(next, error);
          continue;
        }
        if (error.problem.status === 500) this.#faults.set(next.seq!, faults + 1);
        await this.#refresh({ unreached: fate === 'wait', held: fate === 'hold' ? error.message : null });
        if (fate === 'wait') this.#retry = setTimeout(() => void this.send(), RETRY);
        return;
      }
    }
  }

  /** Takes an entry out of the queue and keeps it for its maker, with the reason. */
  async #reject(entry: Waiting, error: ProblemError): Promise<void> {
    const move = (await device()).transaction(['outbox', 'rejected'], 'readwrite');
    await Promise.all([
      move.objectStore('rejected').add({
        waiting: entry,
        why: error.message,
        says: error.problem.says,
        theirs: error.problem.theirs ?? [],
      }),
      move.objectStore('outbox').delete(entry.seq!),
      move.done,
    ]);
    await this.#refresh(REACHED);
  }

  async #refresh(
    { unreached, held }: Pick<OutboxState, 'unreached' | 'held'> = this.#state,
    job?: Job,
  ): Promise<void> {
    const db = await device();
    const [waiting, rejected] = await Promise.all([db.getAll('outbox'), db.getAll('rejected')]);
    const arrived = job ? new Map(this.#state.arrived).set(job.id, job) : this.#state.arrived;
    this.#state = { waiting, rejected, unreached, held, arrived };
    this.#listeners.forEach((listener) => listener());
  }
}

/** Why entries of others stay here. */
const ofOthers = (names: string[]): string =>
  t`What ${[...new Set(names)].join(', ')} did here waits until they sign in on this device.`;

async function post(item: Waiting): Promise<Job> {
  if (item.photo && item.entry.kind === 'photo-taken') {
    const photo = item.photo;
    await unwrap(
      api.PUT('/api/v1/jobs/{id}/photos/{key}', {
        params: { path: { id: item.jobId, key: item.entry.photo } },
        body: photo as never,
        bodySerializer: () => photo,
        headers: { 'Content-Type': photo.type || 'application/octet-stream' },
      }),
    );
  }
  return unwrap(
    api.POST('/api/v1/jobs/{id}/entries', {
      params: { path: { id: item.jobId } },
      body: {
        key: item.key,
        version: item.version,
        device: deviceName(),
        by: item.by,
        madeAt: item.madeAt,
        entry: item.entry,
      },
    }),
  );
}

/** A word that tells this device from others; made once. */
export function deviceName(): string {
  const known = localStorage.getItem('pyrometron.device');
  if (known) return known;
  const made = crypto.randomUUID();
  localStorage.setItem('pyrometron.device', made);
  return made;
}

export const outbox = new Outbox();

export function useOutbox(): OutboxState {
  return useSyncExternalStore(outbox.subscribe, outbox.state);
}
