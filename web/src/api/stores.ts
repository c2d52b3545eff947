import { queryOptions, useQuery } from '@tanstack/react-query';
import { api, unwrap } from './client';
import { lastKnown } from './kept';

/** The shelf, and for which of the next jobs it is enough. Kept, so that a lot's place is known without network. */
export function useStores() {
  return useQuery({
    queryKey: ['stores'],
    queryFn: () => lastKnown('stores', () => unwrap(api.GET('/api/v1/stores'))),
    networkMode: 'always',
  });
}

export function useLot(id: number) {
  return useQuery({
    queryKey: ['stores', 'lot', id],
    queryFn: () => unwrap(api.GET('/api/v1/stores/lots/{id}', { params: { path: { id } } })),
    retry: false,
  });
}

/** What to buy for the next jobs. */
export function useShopping(jobs: number) {
  return useQuery({
    queryKey: ['stores', 'shopping', jobs],
    queryFn: () => unwrap(api.GET('/api/v1/stores/shopping', { params: { query: { jobs } } })),
  });
}

/** What to take along to some machines. */
export function useBring(tags: readonly string[]) {
  return useQuery({
    queryKey: ['stores', 'bring', tags],
    queryFn: () =>
      lastKnown(`bring ${tags.join(' ')}`, () =>
        unwrap(api.GET('/api/v1/stores/bring', { params: { query: { asset: [...tags] } } })),
      ),
    enabled: tags.length > 0,
    retry: false,
    networkMode: 'always',
  });
}

/** What a job at the bench needs from the shelf, with the lots that may be chosen. */
export const jobStores = (id: number) =>
  queryOptions({
    queryKey: ['stores', 'job', id],
    queryFn: () =>
      lastKnown(`stores of job ${String(id)}`, () =>
        unwrap(api.GET('/api/v1/jobs/{id}/stores', { params: { path: { id } } })),
      ),
    retry: false,
    networkMode: 'always',
  });

/** What a job cost. */
export function useJobCost(id: number) {
  return useQuery({
    queryKey: ['stores', 'cost', id],
    queryFn: () => unwrap(api.GET('/api/v1/jobs/{id}/cost', { params: { path: { id } } })),
    retry: false,
  });
}

/** The key of a plan of cuts: it stays the same while the page is open. */
export const CUTTING_KEY = ['cutting'] as const;
