import { t } from '@lingui/core/macro';

/** The kind of a browser out of the long line in which it says what it is. */
export function shortDevice(device: string): string {
  const system = /\(([^;)]+)(?:;\s*([^;)]+))?/.exec(device);
  const mobile = /mobile/i.test(device);
  // The first word of a desktop without a system of its own names the way to its screen.
  const name = system?.[1] === 'X11' ? system[2] : system?.[1];
  const named = [name, mobile ? system?.[2] : undefined].filter(Boolean).join(', ');
  return named || device || t`not told`;
}
