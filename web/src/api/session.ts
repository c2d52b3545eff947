import { queryOptions, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, unwrap, type Schemas } from './client';
import { device, isUnreached } from './kept';

export type Session = Schemas['SessionAnswer'];
export type Right = Schemas['Right'];

const KEPT = 'pyrometron.session';

/** Who was signed in on this device when the server was last reached; null where nobody knows. */
export function lastSession(): Session | null {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? 'null') as Session | null;
  } catch {
    return null;
  }
}

/** Keeps who is signed in for a time without network: the bench goes on in their name. */
function keepSession(session: Session): Session {
  localStorage.setItem(KEPT, JSON.stringify(session));
  if (session.name !== null) localStorage.setItem('pyrometron.name', session.name);
  return session;
}

/** Who is signed in; without network who was. */
export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: async () => {
    try {
      return keepSession(await unwrap(api.GET('/api/v1/session')));
    } catch (error) {
      const known = lastSession();
      if (known && isUnreached(error)) return known;
      throw error;
    }
  },
  staleTime: 60_000,
});

export const useSession = () => useQuery(sessionQuery).data ?? lastSession();

/** Whether whoever is here may do something. Before it is known everything is shown: the server decides. */
export function useMay(right: Right): boolean {
  const session = useSession();
  return session === null || session.rights.includes(right);
}

/** What follows when somebody has signed in here: all is asked for anew, in their name. */
export function useSignedIn() {
  const client = useQueryClient();
  return (session: Session) => {
    client.removeQueries({ predicate: (q) => q.queryKey[0] !== 'session' });
    client.setQueryData(sessionQuery.queryKey, keepSession(session));
  };
}

/** Signs out. What waits to be sent stays on the device for whoever made it; what was only looked at goes. */
export function useSignOut() {
  const client = useQueryClient();
  return async () => {
    await unwrap(api.DELETE('/api/v1/session'));
    await (await device()).clear('answers');
    localStorage.removeItem('pyrometron.name');
    const session = await unwrap(api.GET('/api/v1/session'));
    client.setQueryData(sessionQuery.queryKey, keepSession(session));
    client.removeQueries({ predicate: (q) => q.queryKey[0] !== 'session' });
  };
}
