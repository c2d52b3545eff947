import { useEffect, useState } from 'react';

/** Whether the window is narrower than a width. */
export function useNarrow(width: number): boolean {
  const [narrow, setNarrow] = useState(() => window.innerWidth <= width);
  useEffect(() => {
    const query = window.matchMedia(`(max-width: ${String(width)}px)`);
    const listener = () => setNarrow(query.matches);
    listener();
    query.addEventListener('change', listener);
    return () => query.removeEventListener('change', listener);
  }, [width]);
  return narrow;
}
