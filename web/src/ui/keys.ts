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

/** A hand scanner types a label with keys closer together than this, ms: none of them is meant for the page. */
export const BETWEEN_SCANNED = 60;

/** Runs a page's own keys while it is shown. Letters and digits only where this device's reader wants them. */
export function useKeys(keys: Record<string, (event: KeyboardEvent) => void>): void {
  useEffect(() => {
    let waiting: ReturnType<typeof setTimeout> | undefined;
    const onKey = (event: KeyboardEvent) => {
      clearTimeout(waiting);
      if (event.defaultPrevented) return;
      const action = keys[event.key];
      if (!action || isTyping(event) || isPressed(event)) return;
      const isLetter = /^[\p{L}\p{N}]$/u.test(event.key);
      if (isLetter && !preferences().keys) return;
      event.preventDefault();
      if (isLetter) waiting = setTimeout(() => action(event), BETWEEN_SCANNED + 10);
      else action(event);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [keys]);
}
