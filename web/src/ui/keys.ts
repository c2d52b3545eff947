import { useEffect } from 'react';
import { preferences } from '../words/preferences';

/** Whether a key belongs to a field, a dialog or a shortcut of the browser, and not to the page. */
export function isTyping(event: KeyboardEvent): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey) return true;
  const target = event.target as HTMLElement | null;
  const owner = target?.closest(
    'input:not([type="checkbox"]), textarea, select, [contenteditable], [role="dialog"], [role="combobox"]',
  );
  // A dialog that has just closed may still hold the focus; what cannot be seen owns no keys.
  return owner !== null && owner !== undefined && owner.getClientRects().length > 0;
}

/** Whether something under the focus does the same with this key itself. */
const isPressed = (event: KeyboardEvent) =>
  (event.key === ' ' || event.key === 'Enter') &&
  (event.target as HTMLElement | null)?.closest('a, button, input, [role="button"], [role="radio"]') != null;

/** Runs a page's own keys while it is shown. Letters and digits only where this device's reader wants them. */
export function useKeys(keys: Record<string, (event: KeyboardEvent) => void>): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const action = keys[event.key];
      if (!action || isTyping(event) || isPressed(event)) return;
      if (/^[\p{L}\p{N}]$/u.test(event.key) && !preferences().keys) return;
      event.preventDefault();
      action(event);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [keys]);
}
