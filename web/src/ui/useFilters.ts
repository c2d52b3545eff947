import { useSearchParams } from 'react-router';

/** What a long list is filtered by, kept in the address of the page, so that it can be handed on; and which page of it is shown. */
export function useFilters(): {
  get: (name: string) => string;
  /** Sets some; with other filters the list begins at its first page. */
  set: (changes: Record<string, string>) => void;
  page: number;
} {
  const [params, setParams] = useSearchParams();
  const get = (name: string) => params.get(name) ?? '';
  const set = (changes: Record<string, string>) => {
    const next = new URLSearchParams(params);
    for (const [name, value] of Object.entries({ page: '', ...changes }))
      if (value) next.set(name, value);
      else next.delete(name);
    setParams(next, { replace: true });
  };
  return { get, set, page: Math.max(1, Math.trunc(Number(get('page'))) || 1) };
}
