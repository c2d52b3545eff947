import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useSyncExternalStore } from 'react';
import { Link, useLocation } from 'react-router';
import { useNetwork } from '../api/kept';

interface Held {
  id: number;
  title: string;
}

const KEY = 'pyrometron.inHand';
const CHANGED = 'pyrometron-in-hand';

/** Keeps on this device which job is in hand; null once it is not open any more. */
export function holdJob(job: Held, open: boolean): void {
  const held = read();
  const next = open ? JSON.stringify(job) : null;
  if (!open && held?.id !== job.id) return;
  if (next === localStorage.getItem(KEY)) return;
  if (next) localStorage.setItem(KEY, next);
  else localStorage.removeItem(KEY);
  window.dispatchEvent(new Event(CHANGED));
}

function read(): Held | null {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? 'null') as Held | null;
  } catch {
    return null;
  }
}

function subscribe(listener: () => void) {
  window.addEventListener(CHANGED, listener);
  window.addEventListener('storage', listener);
  return () => {
    window.removeEventListener(CHANGED, listener);
    window.removeEventListener('storage', listener);
  };
}

/** Above every place: the job in hand, and that there is no network. */
export function InHand() {
  const network = useNetwork();
  useSyncExternalStore(subscribe, () => localStorage.getItem(KEY));
  const { pathname } = useLocation();
  const held = read();
  const here = held !== null && pathname.startsWith(`/bench/${String(held.id)}`);
  // A job says itself what waits to be sent.
  const tells = !network && !/^\/bench\/\d+$/.test(pathname);
  if (!tells && (held === null || here)) return null;
  return (
    <div className="in-hand" role="status">
      {tells && (
        <span>
          <Trans>
            <strong>No network.</strong> What is shown here was known last.
          </Trans>
        </span>
      )}
      {held && !here && <Link to={`/bench/${String(held.id)}`}>{t`In hand: ${held.title}`}</Link>}
    </div>
  );
}
