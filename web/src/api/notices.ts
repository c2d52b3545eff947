import { useQuery } from '@tanstack/react-query';
import { api, unwrap } from './client';

/** How often news is asked for, ms; and while the house is not watched yet. */
const NEWS_POLL = 60_000,
  FIRST_POLL = 5_000;

/**
 * What is new, the newest first.
 * @param person Whose: what is shown to them; empty for all of it.
 * @param wanted Whether somebody is there to whom it may be shown.
 */
export function useNews(person: string, wanted = true) {
  return useQuery({
    queryKey: ['notices', 'news', person],
    enabled: wanted,
    queryFn: () => unwrap(api.GET('/api/v1/notices', { params: { query: person ? { person } : {} } })),
    refetchInterval: (query) => (query.state.data?.watchedSince ? NEWS_POLL : FIRST_POLL),
    retry: false,
  });
}

/** Who is told of what, and how. */
export function useTold() {
  return useQuery({
    queryKey: ['notices', 'people'],
    queryFn: () => unwrap(api.GET('/api/v1/notices/people')),
  });
}

/** What was sent or is to be, the newest first. */
export function useSent() {
  return useQuery({
    queryKey: ['notices', 'sent'],
    queryFn: () => unwrap(api.GET('/api/v1/notices/sent')),
    refetchInterval: NEWS_POLL,
  });
}

/** What the demo's stand-ins took. */
export function useStandIns(enabled: boolean) {
  return useQuery({
    queryKey: ['notices', 'stand-ins'],
    queryFn: () => unwrap(api.GET('/api/v1/notices/stand-ins')),
    enabled,
    refetchInterval: NEWS_POLL,
  });
}
