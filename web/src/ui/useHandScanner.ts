import { useEffect, useRef } from 'react';
import { BETWEEN_SCANNED, isTyping } from './keys';
import { useOpenLabel } from './useOpenLabel';

/** Fewer keys than this are no label. */
const SHORTEST = 4;

/** Listens for a hand scanner that types a label anywhere in the program, ended by Enter, and opens what it names. */
export function useHandScanner() {
  const open = useOpenLabel();
  const openLabel = useRef(open);
  useEffect(() => {
    openLabel.current = open;
  });
  useEffect(() => {
    let typed = '';
    let last = 0;
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event)) return;
      const now = performance.now();
      if (now - last > BETWEEN_SCANNED) typed = '';
      last = now;
      if (event.key === 'Enter') {
        if (typed.length >= SHORTEST) {
          event.preventDefault();
          // What is no label of ours is not worth a word: it may have been meant for another program.
          openLabel.current(typed).catch(() => undefined);
        }
        typed = '';
      } else if (event.key.length === 1) typed += event.key;
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, []);
}
