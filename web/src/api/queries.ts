import {
  queryOptions,
  useMutation,
  useQuery,
  useQueryClient,
  type UseMutationResult,
} from '@tanstack/react-query';
import { api, ProblemError, unwrap, type Schemas } from './client';
import { FIRST_ROWS, rowsOrAsk } from './early';
import { lastKnown } from './kept';
import { mergedQueue } from './mergedQueue';

/** While a judgement is being worked out the answer is asked for again this often, ms. */
const PENDING_POLL = 1500;

/** Otherwise it is looked at again this often, ms: others work on the same fleet. */
const CALM_POLL = 60_000;

/** A job is looked at this often, ms: two people may be at one machine. */
const JOB_POLL = 10_000;

/** Rows of the queue that are kept for a time without network: a day's work and more. */
const KEPT_ROWS = 300;

/** The most pressing machines, before all of them. */
export const firstRows = queryOptions({
  queryKey: ['queue-first'],
  // Kept too: who leaves before the rest has come still has these without network.
  queryFn: () =>
    lastKnown('queue', () =>
      unwrap(
        api.GET('/api/v1/queue', {
          params: { query: { limit: FIRST_ROWS.limit, wait: Number(FIRST_ROWS.wait) } },
          fetch: rowsOrAsk,
        }),
      ),
    ),
  staleTime: Infinity,
  retry: false,
});

/** The order of work: its first rows as soon as they are there, then all of it. */
export function useQueue() {
  const client = useQueryClient();
  const first = useQuery({ ...firstRows, enabled: client.getQueryData(['queue']) === undefined });
  return useQuery({
    ...(first.data ? { placeholderData: first.data } : {}),
    queryKey: ['queue'],
    // The whole of a large house is megabytes: it does not compete with the rows that are shown first.
    enabled: first.fetchStatus !== 'fetching',
    queryFn: () =>
      lastKnown(
        'queue',
        async () => {
          // A large house is told what has changed, not all of it.
          const before = client.getQueryData<Schemas['QueueAnswer']>(['queue']);
          const query = { limit: 'all', wait: 0.3, ...(before?.mark ? { since: before.mark } : {}) };
          return mergedQueue(before, await unwrap(api.GET('/api/v1/queue', { params: { query } })));
        },
        (queue) => ({ ...queue, mark: null, items: queue.items.slice(0, KEPT_ROWS) }),
      ),
    networkMode: 'always',
    // Rows that stayed are the same objects already.
    structuralSharing: false,
    refetchInterval: (query) => (query.state.data?.pending ? PENDING_POLL : CALM_POLL),
  });
}

function isConflict(error: Error | null): boolean {
  return error instanceof ProblemError && error.problem.status === 409;
}

export function useAssessment(tag: string | null) {
  return useQuery({
    queryKey: ['assessment', tag],
    queryFn: () =>
      unwrap(
        api.GET('/api/v1/assets/{tag}/assessment', {
          params: { path: { tag: tag ?? '' }, query: { wait: 5 } },
        }),
      ),
    enabled: tag !== null,
    retry: false,
    // A fleet that is judged for the first time answers "still being judged": that passes by itself.
    refetchInterval: (query) =>
      query.state.data?.pending || isConflict(query.state.error) ? PENDING_POLL : false,
  });
}

export function useMachine(tag: string | null) {
  return useQuery({
    queryKey: ['machine', tag],
    queryFn: () => unwrap(api.GET('/api/v1/assets/{tag}', { params: { path: { tag: tag ?? '' } } })),
    enabled: tag !== null,
    retry: false,
  });
}

export function useMachines() {
  return useQuery({ queryKey: ['machines'], queryFn: () => unwrap(api.GET('/api/v1/assets')) });
}

/** @param judgedAt Asked for anew with every judgement, where the rooms matter. */
export function useZones(judgedAt?: string | null) {
  return useQuery({
    queryKey: ['zones', judgedAt ?? null],
    placeholderData: (before) => before,
    queryFn: () => unwrap(api.GET('/api/v1/zones', { params: { query: { wait: 0.3 } } })),
  });
}

/** The plan in force. Kept, so that a day sheet opens without network. */
export function useWeeks() {
  return useQuery({
    queryKey: ['weeks'],
    queryFn: () => lastKnown('weeks', () => unwrap(api.GET('/api/v1/weeks'))),
    networkMode: 'always',
    // A plan being made is looked at every second.
    refetchInterval: (query) => (query.state.data?.run ? 1000 : CALM_POLL),
  });
}

/** Hours of work a week against machines that pass their action line. */
export function useHours() {
  return useQuery({
    queryKey: ['weeks-hours'],
    queryFn: () => unwrap(api.GET('/api/v1/weeks/hours')),
    retry: false,
  });
}

/** What waiting with advised work means, of a machine or of a zone. */
export function useWaiting(of: 'assets' | 'zones', name: string, judgedAt: string | null) {
  return useQuery({
    queryKey: ['waiting', of, name, judgedAt],
    queryFn: () =>
      of === 'assets'
        ? unwrap(api.GET('/api/v1/assets/{tag}/waiting', { params: { path: { tag: name } } }))
        : unwrap(api.GET('/api/v1/zones/{code}/waiting', { params: { path: { code: name } } })),
    placeholderData: (before) => before,
    retry: false,
  });
}

/** Who works when, and where work may be done when. */
export function useStaff() {
  return useQuery({
    queryKey: ['staff'],
    queryFn: () => lastKnown('staff', () => unwrap(api.GET('/api/v1/staff'))),
    networkMode: 'always',
  });
}

export function useJobs() {
  return useQuery({
    queryKey: ['jobs'],
    queryFn: () =>
      lastKnown('jobs', () => unwrap(api.GET('/api/v1/jobs', { params: { query: { count: 200 } } }))),
    networkMode: 'always',
    refetchInterval: CALM_POLL,
  });
}

export function useJob(id: number) {
  return useQuery({
    queryKey: ['job', id],
    queryFn: () =>
      lastKnown(`job ${String(id)}`, () =>
        unwrap(api.GET('/api/v1/jobs/{id}', { params: { path: { id } } })),
      ),
    retry: false,
    networkMode: 'always',
    refetchInterval: JOB_POLL,
  });
}

export function useGrades() {
  return useQuery({
    queryKey: ['grades'],
    queryFn: () => lastKnown('grades', () => unwrap(api.GET('/api/v1/jobs/grades'))),
    networkMode: 'always',
    staleTime: Infinity,
  });
}

export function useComebacks() {
  return useQuery({ queryKey: ['comebacks'], queryFn: () => unwrap(api.GET('/api/v1/findings/comebacks')) });
}

export function useNotes(model: string) {
  return useQuery({
    queryKey: ['notes', model],
    queryFn: () => unwrap(api.GET('/api/v1/models/notes', { params: { query: { model } } })),
  });
}

export function usePolicy() {
  return useQuery({ queryKey: ['policy'], queryFn: () => unwrap(api.GET('/api/v1/policy')) });
}

export function useRules() {
  return useQuery({ queryKey: ['rules'], queryFn: () => unwrap(api.GET('/api/v1/rules')) });
}

/** What the house's own record says about its intervals. */
export function useLearnt() {
  return useQuery({ queryKey: ['learnt'], queryFn: () => unwrap(api.GET('/api/v1/rules/learnt')) });
}

export function useHealth() {
  return useQuery({
    queryKey: ['health'],
    queryFn: () => unwrap(api.GET('/api/v1/health')),
    staleTime: Infinity,
  });
}

/** A write, after which everything that may have changed with it is asked for again, without anybody waiting for that. */
export function useWrite<In, Out>(write: (input: In) => Promise<Out>): UseMutationResult<Out, Error, In> {
  const client = useQueryClient();
  return useMutation({ mutationFn: write, onSettled: () => void client.invalidateQueries() });
}
