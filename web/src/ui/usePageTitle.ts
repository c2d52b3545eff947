import { useEffect } from 'react';

/** Names the browser tab. */
export function usePageTitle(title: string): void {
  useEffect(() => {
    document.title = `${title} · Pyrometron`;
  }, [title]);
}
