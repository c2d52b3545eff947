import { QueryCache, QueryClient } from '@tanstack/react-query';
import { ProblemError } from './client';
import { outbox } from './outbox';
import { firstRows } from './queries';
import { sessionQuery } from './session';

/** What the pages know of the server. */
export const queryClient = new QueryClient({
  queryCache: new QueryCache({
    // Signed out meanwhile, here or elsewhere: who is here is asked anew, and the frame asks to sign in.
    onError: (error, query) => {
      if (error instanceof ProblemError && error.problem.status === 401 && query.queryKey[0] !== 'session')
        void queryClient.invalidateQueries({ queryKey: sessionQuery.queryKey });
    },
  }),
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      // What the server refused it will refuse again; what did not reach it may next time.
      retry: (failures, error) => failures < 2 && !(error instanceof ProblemError && error.problem.status),
    },
  },
});

// Whatever page is open when an entry arrives: what the server makes of it is asked for anew.
outbox.onArrival((job) => {
  queryClient.setQueryData(['job', job.id], job);
  void queryClient.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'job' });
});

/** The page is drawn without its rows where they take longer than this, ms. */
const PATIENCE = 300;

/** Waits a moment for the first rows, so that the page is drawn once and not twice. */
export async function rowsAtHand(): Promise<void> {
  await Promise.race([
    queryClient.query(firstRows).catch(() => undefined),
    new Promise((resolve) => setTimeout(resolve, PATIENCE)),
  ]);
}
