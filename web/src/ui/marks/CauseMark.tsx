import { t } from '@lingui/core/macro';
import type { Cause } from '../../api/client';

/** The causes' own marks, always shown with their word. */
const MARKS: Record<Cause, React.ReactNode> = {
  dust: (
    <g fill="currentColor">
      {[
        [4, 5],
        [9, 3],
        [14, 6],
        [6, 10],
        [11, 9],
        [15, 12],
        [4, 15],
        [9, 14],
        [13, 16],
      ].map(([x, y]) => (
        <circle key={`${String(x)}-${String(y)}`} cx={x} cy={y} r={1.15} />
      ))}
    </g>
  ),
  paste: <path d="M2 11c2.4-6 4.6-6 7 0s4.600 6 7 0" />,
  pads: (
    <>
      <rect x="2.500" y="4.500" width="13" height="10" />
      <path d="M2.500 9.500h13" />
    </>
  ),
  fan: (
    <g fill="currentColor" stroke="none">
      <path d="M9 9C5 8 4 4 7 2c2.500 1.500 3 4 2 7z" />
      <path d="M9 9c1-4 5-5 7-2-1.500 2.500-4 3-7 2z" />
      <path d="M9 9c4 1 5 5 2 7-2.500-1.500-3-4-2-7z" />
    </g>
  ),
  mount: <path d="M2 14.500h14M3 11 15 4.500" />,
  room: <path d="M2 9 9 3l7 6M4 8v7.500h10V8" />,
  settings: (
    <>
      <path d="M2 6h14M2 12h14" />
      <circle cx="6.500" cy="6" r="2" fill="var(--panel)" />
      <circle cx="11.500" cy="12" r="2" fill="var(--panel)" />
    </>
  ),
  sensor: <path d="M2 12h4l2-7M10.500 13.500 12 9h4" />,
  'cooler-limited': <path d="M2 3.500h14M9 16V6.500M5.500 10 9 6.500 12.500 10" />,
  none: <path d="M4 9.500h10" />,
};

export const CAUSE_WORDS: Record<Cause, string> = {
  dust: t`Dust`,
  paste: t`Paste`,
  pads: t`Pads`,
  fan: t`Fan`,
  mount: t`Mount`,
  room: t`Room`,
  settings: t`Settings`,
  sensor: t`Sensor`,
  'cooler-limited': t`Cooler at its limit`,
  none: t`Nothing`,
};

export function CauseMark({ cause, size = 18 }: { cause: Cause; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 18 18"
      fill="none"
      stroke="currentColor"
      strokeWidth={1.6}
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden="true"
      style={{ flex: 'none' }}
    >
      {MARKS[cause]}
    </svg>
  );
}
