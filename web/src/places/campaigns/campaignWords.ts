import { plural, t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { day, kelvin, minutes, money } from '../../words/format';

type Campaign = Schemas['CampaignAnswer'];

export const machinesWords = (count: number): string =>
  plural(count, { one: '# machine', other: '# machines' });

/** How many of its machines are done. */
export const doneWords = (c: Campaign): string =>
  t`${c.machines.filter((m) => m.step === 'done').length} of ${machinesWords(c.machines.length)} done`;

/** What to do about it, in a sentence. */
export function adviceWords(c: Campaign): string {
  if (c.state === 'ended') return t`Ended ${day(c.ended!)}: ${c.endedBecause ?? ''}`;
  if (c.state === 'paused') return t`Paused: none of its machines is planned.`;
  if (c.advice !== 'all-done' && c.advice !== 'stop' && c.goneOnBy)
    return t`All machines may be done: ${c.goneOnBy} decided that before the proof did.`;
  switch (c.advice) {
    case 'pilot':
      return t`First the pilot: ${machinesWords(c.pilot)}. The others wait for what it proves.`;
    case 'unproven':
      return t`The pilot is done, but too few of its jobs have a run before and after: measure them, or nothing can be said.`;
    case 'more':
      return t`Not decided yet: ${machinesWords(c.pilot)} more at a time.`;
    case 'go-on':
      return t`Go on: it wins what it should. All machines may be done.`;
    case 'stop':
      return t`Stop: it does not win what it should. None of its machines is planned any more.`;
    case 'all-done':
      return t`All machines are done.`;
  }
}

/** By which rule it is decided. */
export function ruleWords(c: Campaign): string {
  const rate = Math.round(100 * c.errorRate);
  return t`Wald’s sequential test on the mean win, with wins that differ by ${kelvin(c.scatterKelvin)} from machine to machine. Work that wins ${kelvin(c.leastKelvin)} or more is stopped wrongly in at most ${rate} of 100 campaigns, work that wins ${kelvin(c.leastKelvin / 2)} or less gone on with wrongly in at most ${rate}.`;
}

/** What it takes in sum. */
export const sumWords = (sum: Schemas['CampaignSum']): string =>
  t`${machinesWords(sum.machines)}: ${minutes(sum.minutes)} at the bench, ${money(sum.material, sum.currency)} of material, ${money(sum.work, sum.currency)} of work.`;
