import { expect, test } from 'vitest';
import type { Schemas } from '../../api/client';
import type { JobEntry, Waiting } from '../../api/kept';
import { overlay } from './overlay';

// The same examples that the server's tests read: what a device adds up must be what the server stores.
const EXAMPLES = Object.values(
  import.meta.glob<JobEntry>('../../../../tests/golden/entries/*.json', { eager: true, import: 'default' }),
);

type Job = Schemas['JobAnswer'];

const step = (id: string) => ({ id, doneAt: null, skipped: false, checks: [] });
const JOB = {
  id: 4,
  state: 'open',
  version: 7,
  steps: [step('prepare'), step('blow')],
  runs: [
    {
      key: '5f0c4a86-5d0c-4d1c-9f39-0a4f2f7b9f11',
      phase: 'before',
      measuredAt: '2026-03-02T08:00:00Z',
      run: {},
      voided: null,
    },
  ],
  counts: [],
  countExcuses: {},
  timers: [{ timer: 'drain', startedAt: '2026-03-02T08:00:00Z', seconds: 15, stopped: false }],
  findings: [],
  damage: [],
  deviations: [],
  damageDone: [],
  products: [],
  padsMeasured: [],
  tools: [],
  order: null,
  unagreed: 'Write down what was agreed.',
  materials: [],
  minutes: 10,
  photos: [],
  note: null,
  beforeExcuse: null,
  blockedBefore: 'Measure before opening.',
  handedBack: null,
  complaint: null,
  excuses: [],
  notes: {},
  notesChanged: true,
} as unknown as Job;

const MADE = '2026-03-02T09:00:00Z';

/** What each kind does on the device; null for those whose effect is the server's to work out. */
const EFFECTS: Record<NonNullable<JobEntry['kind']>, ((job: Job) => unknown) | null> = {
  'step-done': (j) => j.steps[1]?.doneAt === MADE && j.steps[1].checks.length === 1,
  'step-undone': (j) => j.steps[1]?.doneAt === null,
  'step-skipped': (j) => j.steps[0]?.skippedBecause === 'done by a colleague',
  'step-added': null,
  'step-repeated': null,
  'level-changed': null,
  counted: (j) => j.counts[0]?.out === 4 && j.counts[0].in === 3,
  'chip-seen': (j) => j.notes.chip === 'lidded',
  'count-excused': (j) => j.countExcuses['connectors'] === 'one was missing on arrival',
  found: (j) => j.findings[0]?.grade === 'torn',
  'damage-found': (j) => j.damage[0] === 'clip broken',
  'deviation-seen': (j) => j.deviations[0] === 'paste instead of pads',
  'complaint-recorded': (j) => j.complaint?.minutesToFailure === 9.5,
  'warranty-answered': null,
  'before-excused': (j) => j.beforeExcuse === 'does not start' && j.blockedBefore === null,
  'run-measured': (j) =>
    j.runs[0]?.voided === null &&
    j.runs[1]?.run.parts[0]?.celsius === 71 &&
    j.runs[1].run.source === 'log' &&
    j.blockedBefore === null,
  'run-voided': (j) => j.runs[0]?.voided === 'door open',
  'timer-started': (j) => j.timers[0]?.startedAt === MADE,
  'timer-stopped': (j) => j.timers[0]?.stopped,
  'material-used': (j) => j.materials[0]?.amount === 2 && j.materials[0].thicknessMm === 1.5,
  'product-used': (j) => j.products[0]?.name === 'Hemlock 8' && j.products[0].pattern === 'spread',
  'pad-measured': (j) => j.padsMeasured[0]?.measuredMm === 1.38 && j.padsMeasured[0].pad === 2,
  'tool-used': (j) => j.tools[0] === 'long PH0',
  'order-agreed': (j) => j.order?.priceCap === 120 && j.unagreed === null,
  'minutes-booked': (j) => j.minutes === 22.5,
  noted: (j) => j.note === 'dry, like chalk',
  'photo-taken': (j) => j.photos[0]?.foundOnOpening && j.photos[0].caption === 'Fins as found',
  'work-filed': (j) => j.state === 'waiting-for-proof' && j.workDoneAt === MADE,
  reopened: null,
  'verdict-filed': null,
  'handed-back': (j) => j.handedBack?.to === 'Desk 4',
  'given-up': null,
  'notes-taken': (j) => !j.notesChanged,
  'card-changed': null,
};

test('every kind of entry has its example', () => {
  expect(EXAMPLES.map((e) => e.kind).sort()).toEqual(Object.keys(EFFECTS).sort());
});

test.each(EXAMPLES)('$kind, as it is stored, is added up on the device', (entry) => {
  const waiting: Waiting = { jobId: 4, key: 'x', version: 7, madeAt: MADE, by: null, entry };
  const after = overlay(JOB, [waiting]);
  const effect = EFFECTS[entry.kind!];
  if (effect) expect(effect(after)).toBe(true);
  else expect(after).toEqual(JOB);
});
