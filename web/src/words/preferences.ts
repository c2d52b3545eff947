import { useSyncExternalStore } from 'react';
import type { TemperatureUnit } from './format';

/** What a reader has chosen for this device. */
export interface Preferences {
  unit: TemperatureUnit;
  theme: 'light' | 'dark' | 'system';
  /** Whether single letters and digits are keys. */
  keys: boolean;
  /** Code of the person to whom news is shown on this device; empty for all of it. */
  reader: string;
  /** Number of the newest notice that was shown here. */
  seenNotice: number;
}

const KEY = 'pyrometron.preferences';
const DEFAULTS: Preferences = { unit: 'C', theme: 'system', keys: true, reader: '', seenNotice: 0 };
const listeners = new Set<() => void>();
let current = load();

function load(): Preferences {
  try {
    return { ...DEFAULTS, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Preferences>) };
  } catch {
    return DEFAULTS;
  }
}

export function setPreferences(change: Partial<Preferences>): void {
  current = { ...current, ...change };
  try {
    localStorage.setItem(KEY, JSON.stringify(current));
  } catch {
    // A browser that keeps nothing still shows the choice until it is closed.
  }
  listeners.forEach((listener) => listener());
}

/** What holds now, where nothing has to follow a change. */
export const preferences = (): Preferences => current;

export function usePreferences(): Preferences {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => current,
    () => DEFAULTS,
  );
}

const darkQuery = typeof matchMedia === 'function' ? matchMedia('(prefers-color-scheme: dark)') : null;

/** Whether to show the night variant. */
export function useDark(): boolean {
  const { theme } = usePreferences();
  const system = useSyncExternalStore(
    (listener) => {
      darkQuery?.addEventListener('change', listener);
      return () => darkQuery?.removeEventListener('change', listener);
    },
    () => darkQuery?.matches ?? false,
    () => false,
  );
  return theme === 'dark' || (theme === 'system' && system);
}
