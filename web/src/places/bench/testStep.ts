import type { Schemas } from '../../api/client';

type Step = Schemas['StepAnswer'];

/** A step for tests: an open tick of a stage, but for what is said. */
export const testStep = (id: string, stage: Step['stage'], more: Partial<Step> = {}): Step => ({
  id,
  stage,
  do: id,
  message: { template: id, plain: id, values: [] } as never,
  cautions: [],
  gate: [],
  gateMessages: [],
  form: 'tick',
  timer: null,
  order: [],
  optional: false,
  mayBeSkipped: true,
  doneAt: null,
  doneBy: null,
  checks: [],
  skipped: false,
  skippedBecause: null,
  confirmedOneByOne: false,
  ...more,
});
