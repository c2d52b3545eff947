import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Filter, Grouping, Order } from './groups';

/** Typing rests this long before the address follows, ms. */
const TYPING_REST = 150;

const GROUPINGS: readonly Grouping[] = ['urgency', 'zone', 'warranty'];
const ORDERS: readonly Order[] = ['pressing', 'tag', 'date', 'minutes'];

/** How Rounds is looked at, kept in the address: what is shown, grouped and ordered how. */
export function useView() {
  const [params, setParams] = useSearchParams();
  const one = <T extends string>(name: string, among: readonly T[]): T =>
    among.find((value) => value === params.get(name)) ?? among[0]!;
  const filter: Filter = {
    text: params.get('q') ?? '',
    site: params.get('site'),
    zone: params.get('zone'),
    kind: params.get('kind'),
    urgency: params.get('urgency'),
    only: params.get('only'),
  };
  // From the address as it is now: two changes in one breath would otherwise each begin from what was drawn last.
  const set = (name: string, value: string | null) => {
    const next = new URLSearchParams(window.location.search);
    if (value) next.set(name, value);
    else next.delete(name);
    setParams(next, { replace: true });
  };
  // What is typed shows at once; the address follows when the fingers rest.
  const [typed, setTyped] = useState(filter.text);
  useEffect(() => {
    if (typed === filter.text) return;
    const rest = setTimeout(() => set('q', typed || null), TYPING_REST);
    return () => clearTimeout(rest);
  });
  return {
    filter,
    filtering: Object.values(filter).some(Boolean),
    grouping: one('by', GROUPINGS),
    order: one('order', ORDERS),
    set,
    typed,
    setTyped,
    clear: () => {
      setTyped('');
      setParams({}, { replace: true });
    },
  };
}

export type View = ReturnType<typeof useView>;
