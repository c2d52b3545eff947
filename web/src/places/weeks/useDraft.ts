import { useCallback, useEffect, useRef, useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import type { Spot } from './board';

/** A job on the move: nothing is stored before it is put down. */
export interface Draft extends Spot {
  id: string;
  minutes: number;
  /** Why it cannot stand there; undefined while that is being asked. */
  conflict: Schemas['Message'] | null | undefined;
}

/** Nobody is asked while a job is still on the way, ms. */
const PAUSE = 120;

/** A job that is being moved, with whether it may stand where it is held. */
export function useDraft(seen: number) {
  const [draft, setDraft] = useState<Draft | null>(null);
  const current = useRef<Draft | null>(null);
  const place = useWrite((spot: Draft) => put(seen, spot, false));

  const hold = useCallback((next: Omit<Draft, 'conflict'> | null) => {
    current.current = next && { ...next, conflict: undefined };
    setDraft(current.current);
  }, []);

  useEffect(() => {
    if (!draft || draft.conflict !== undefined) return;
    const asking = setTimeout(() => {
      void put(seen, draft, true).then(
        ({ conflict }) => {
          if (current.current !== draft) return;
          current.current = { ...draft, conflict };
          setDraft(current.current);
        },
        () => undefined,
      );
    }, PAUSE);
    return () => clearTimeout(asking);
  }, [draft, seen]);

  /** Puts the job down where it is held; where it cannot stand there it stays held, with the reason. */
  const putDown = async () => {
    const held = current.current;
    if (!held) return;
    const { conflict } = await place.mutateAsync(held);
    // It may have been given up, or moved on, meanwhile.
    if (current.current !== held) return;
    if (conflict) {
      current.current = { ...held, conflict };
      setDraft(current.current);
    } else hold(null);
  };

  return { draft, hold, putDown, place };
}

const put = (seen: number, { id, person, day, from }: Draft, tryOnly: boolean) =>
  unwrap(
    api.POST('/api/v1/weeks/jobs/{id}/place', {
      params: { path: { id } },
      body: { seen, person, day, from, tryOnly },
    }),
  );
