import { useMemo } from 'react';
import type { Schemas } from '../../api/client';
import type { JobEntry } from '../../api/kept';
import { useJob } from '../../api/queries';
import { outbox, useOutbox, type Besides } from '../../api/outbox';
import { overlay } from './overlay';

/** Writes one thing that happened; resolves when it has arrived, was refused, or waits for network. */
export type Write = (entry: JobEntry, besides?: Besides) => Promise<void>;

export interface BenchJob {
  job: Schemas['JobAnswer'];
  write: Write;
}

/** The job in hand: what the server has, with what waits on this device laid over it. */
export function useBenchJob(id: number) {
  const query = useJob(id);
  const { waiting, arrived } = useOutbox();
  const last = arrived.get(id);
  const known = last && last.version > (query.data?.version ?? 0) ? last : query.data;
  const job = useMemo(() => (known ? overlay(known, waiting) : undefined), [known, waiting]);
  const version = known?.version ?? 1;
  const write: Write = (entry, besides) => outbox.add({ id, version }, entry, besides);
  return { query, job, write };
}
