import { useEffect } from 'react';

/** Whether a key belongs to a field, a dialog or a shortcut of the browser, and not to the page. */
export function isTyping(event: KeyboardEvent): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey) return true;
  const target = event.target as HTMLElement | null;
  const owner = target?.closest(
    'input, textarea, select, [contenteditable], [role="dialog"], [role="combobox"]',
  );
  // A dialog that has just closed may still hold the focus; what cannot be seen owns no keys.
  return owner !== null && owner !== undefined && owner.getClientRects().length > 0;
}

/** Runs a page's own keys while it is shown. */
export function useKeys(keys: Record<string, (event: KeyboardEvent) => void>): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const action = keys[event.key];
      if (action && !isTyping(event)) {
        event.preventDefault();
        action(event);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [keys]);
}
