import type { Schemas } from '../../../api/client';
import { usesSomething } from './method';

type Step = Schemas['StepAnswer'];

/** More lines than this are not taken in at a glance. */
const MOST = 6;

/** A step that asks for nothing but its tick. */
const isPlain = (s: Step): boolean =>
  s.form === 'tick' &&
  s.gate.length === 0 &&
  s.timer === null &&
  s.order.length === 0 &&
  !usesSomething(kindOf(s));

/** A look or a count stands on one screen with the ticks that lead to it, and so does what is prepared with the word to the owner. */
const takesTicks = (s: Step, before: Step): boolean =>
  s.form === 'seal-inspection' ||
  s.form === 'screws-out' ||
  s.form === 'connectors-out' ||
  (before.stage === 'prepare' && s.stage !== 'prepare' && s.form === 'tick' && !s.confirmedOneByOne);

/** A step's id without the number of its repetition. */
export const kindOf = (s: Step): string => s.id.split('~')[0]!;

export const isOpen = (s: Step): boolean => s.doneAt === null && !s.skipped;

/** The card cut into screens: plain ticks of one stage together, everything else by itself. */
export function screensOf(steps: readonly Step[]): Step[][] {
  const screens: Step[][] = [];
  let screen: Step[] = [];
  steps.forEach((step, i) => {
    screen.push(step);
    const next = steps[i + 1];
    const goesOn =
      next !== undefined &&
      isPlain(step) &&
      screen.length < MOST &&
      (takesTicks(next, step) || (isPlain(next) && next.stage === step.stage));
    if (!goesOn) {
      screens.push(screen);
      screen = [];
    }
  });
  return screens;
}

/** What is shown for a step: what is still open on its screen; one that is done already stands by itself. */
export function screenOf(steps: readonly Step[], step: Step): Step[] {
  if (!isOpen(step)) return [step];
  return (screensOf(steps).find((s) => s.includes(step)) ?? [step]).filter(isOpen);
}
