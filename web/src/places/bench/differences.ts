import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { kelvin } from '../../words/format';

type Run = Schemas['RunAnswer'];

/** What makes a second run hard to compare with the first, told before it is kept; the verdict itself is the server's. */
export function differences(before: Run, after: Run): string[] {
  const found: string[] = [];
  if (after.workload && before.workload !== after.workload) found.push(t`The load was “${before.workload}”.`);
  if (after.settings && before.settings !== after.settings)
    found.push(t`The settings were “${before.settings}”.`);
  if (before.minutes && after.minutes && Math.abs(after.minutes - before.minutes) > 0.1 * before.minutes)
    found.push(t`The first run lasted ${String(before.minutes)} minutes.`);
  if (before.position && after.position && before.position.toLowerCase() !== after.position.toLowerCase())
    found.push(t`It stood: ${before.position}.`);
  if (before.fan.mode !== after.fan.mode)
    found.push(before.fan.mode === 'auto' ? t`The fan was automatic.` : t`The fan was fixed.`);
  else if (
    before.fan.percent &&
    after.fan.percent &&
    Math.abs(after.fan.percent / before.fan.percent - 1) > 0.05
  )
    found.push(t`The fan ran at ${String(before.fan.percent)} %.`);
  if (before.ambientCelsius !== null && after.ambientCelsius !== null) {
    const moved = after.ambientCelsius - before.ambientCelsius;
    if (Math.abs(moved) > 1)
      found.push(
        moved > 0
          ? t`The air is ${kelvin(moved)} warmer; rises over it are compared.`
          : t`The air is ${kelvin(-moved)} cooler; rises over it are compared.`,
      );
  }
  return found;
}
