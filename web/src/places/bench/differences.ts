import type { Schemas } from '../../api/client';

type Run = Schemas['RunDto'];

/** What makes a second run hard to compare with the first, told before it is kept; the verdict itself is the server's. */
export function differences(before: Run, after: Run): string[] {
  const found: string[] = [];
  if (after.workload && before.workload !== after.workload)
    found.push(`The load was “${before.workload ?? ''}”.`);
  if (after.settings && before.settings !== after.settings)
    found.push(`The settings were “${before.settings ?? ''}”.`);
  if (before.minutes && after.minutes && Math.abs(after.minutes - before.minutes) > 0.1 * before.minutes)
    found.push(`The first run lasted ${String(before.minutes)} minutes.`);
  if (before.position && after.position && before.position.toLowerCase() !== after.position.toLowerCase())
    found.push(`It stood: ${before.position}.`);
  if (before.fan?.mode !== after.fan?.mode)
    found.push(`The fan was ${before.fan?.mode === 'auto' ? 'automatic' : 'fixed'}.`);
  else if (
    before.fan?.percent &&
    after.fan?.percent &&
    Math.abs(after.fan.percent / before.fan.percent - 1) > 0.05
  )
    found.push(`The fan ran at ${String(before.fan.percent)} %.`);
  if (before.ambientCelsius !== null && after.ambientCelsius !== null) {
    const moved = after.ambientCelsius - before.ambientCelsius;
    if (Math.abs(moved) > 1)
      found.push(
        `The air is ${Math.abs(moved).toFixed(1)} K ${moved > 0 ? 'warmer' : 'cooler'}; rises over it are compared.`,
      );
  }
  return found;
}
