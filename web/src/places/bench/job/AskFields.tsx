import type { ReactNode } from 'react';

/** Fields of a dialog, one below the other. */
export function AskFields({ children }: { children: ReactNode }) {
  return <div className="stacked">{children}</div>;
}
