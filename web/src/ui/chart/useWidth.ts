import { useLayoutEffect, useRef, useState } from 'react';

/** The width of an element in CSS pixels, followed as it changes: what is drawn in it keeps its size of letters. */
export function useWidth(first: number) {
  const ref = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(first);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const follow = () => setWidth(Math.max(240, Math.round(element.clientWidth)));
    follow();
    const observer = new ResizeObserver(follow);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, width] as const;
}
