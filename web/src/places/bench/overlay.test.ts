import { expect, test } from 'vitest';
import type { Schemas } from '../../api/client';
import type { JobEntry, Waiting } from '../../api/kept';
import { overlay } from './overlay';
import { testStep } from './testStep';

const step = (id: string) => testStep(id, 'clean');

const JOB = {
  id: 4,
  state: 'open',
  version: 7,
  steps: [step('blow'), step('brush')],
  runs: [],
  counts: [{ what: 'screws', item: '6 mm', out: 2, in: 0 }],
  countExcuses: {},
  timers: [],
  findings: [],
  damage: [],
  deviations: [],
  materials: [{ material: 'wipes', amount: 2, thicknessMm: null }],
  minutes: 10,
  photos: [],
  note: null,
  blockedBefore: 'Measure before opening.',
} as unknown as Schemas['JobAnswer'];

let seq = 0;
const waits = (entry: JobEntry, jobId = 4): Waiting => ({
  seq: ++seq,
  jobId,
  key: String(seq),
  version: 7,
  madeAt: `2026-03-02T09:00:0${String(seq % 10)}Z`,
  by: null,
  entry,
});

test('what waits is laid over the job in its order, and only over its own job', () => {
  const seen = overlay(JOB, [
    waits({ kind: 'step-done', step: 'blow', checks: [] }),
    waits({ kind: 'step-done', step: 'brush', checks: [] }),
    waits({ kind: 'step-undone', step: 'brush' }),
    waits({ kind: 'counted', what: 'screws', item: '6 mm', out: 4, in: 0 }),
    waits({ kind: 'noted', text: 'lint' }),
    waits({ kind: 'noted', text: 'of another job' }, 5),
  ]);
  expect(seen.steps.map((s) => s.doneAt !== null)).toEqual([true, false]);
  expect(seen.counts).toEqual([{ what: 'screws', item: '6 mm', out: 4, in: 0, place: null }]);
  expect(seen.note).toBe('lint');
  expect(JOB.note).toBeNull();
});

test('what adds up is added, and what is replaced is replaced', () => {
  const seen = overlay(JOB, [
    waits({ kind: 'material-used', material: 'wipes', amount: 1, thicknessMm: null }),
    waits({ kind: 'material-used', material: 'pad-pieces', amount: 2, thicknessMm: 1.5 }),
    waits({ kind: 'material-used', material: 'pad-pieces', amount: -2, thicknessMm: 1.5 }),
    waits({ kind: 'minutes-booked', minutes: 5 }),
    waits({ kind: 'found', about: 'dust', grade: '1', note: null }),
    waits({ kind: 'found', about: 'dust', grade: '3', note: null }),
  ]);
  expect(seen.materials).toMatchObject([{ material: 'wipes', amount: 3 }]);
  expect(seen.minutes).toBe(15);
  expect(seen.findings.map((f) => f.grade)).toEqual(['3']);
});

test('a run kept on the device opens the work, and a second one stands beside the first', () => {
  const run = { workload: 'a', minutes: 20 } as unknown as Schemas['RunAnswer'];
  const seen = overlay(JOB, [
    waits({ kind: 'run-measured', phase: 'before', run }),
    waits({ kind: 'run-measured', phase: 'before', run }),
    waits({ kind: 'work-filed' }),
  ]);
  expect(seen.blockedBefore).toBeNull();
  expect(seen.runs.map((r) => r.voided)).toEqual([null, null]);
  expect(seen.state).toBe('waiting-for-proof');
});

test('a run is struck out by its key, or the newest of its phase', () => {
  const run = { workload: 'a', minutes: 20 } as unknown as Schemas['RunAnswer'];
  const measured = (key: string) => ({ ...waits({ kind: 'run-measured', phase: 'before', run }), key });
  const struck = (runKey: string | null) =>
    overlay(JOB, [
      measured('one'),
      measured('two'),
      waits({ kind: 'run-voided', phase: 'before', reason: 'door open', runKey }),
    ]).runs.map((r) => r.voided);
  expect(struck('one')).toEqual(['door open', null]);
  expect(struck(null)).toEqual([null, 'door open']);
});

test('timers run from when they were started on this device', () => {
  const started = waits({ kind: 'timer-started', timer: 'drain', seconds: 15 });
  expect(overlay(JOB, [started]).timers).toEqual([
    { timer: 'drain', startedAt: started.madeAt, seconds: 15, stopped: false },
  ]);
  const heard = [started, waits({ kind: 'timer-stopped', timer: 'drain' })];
  expect(overlay(JOB, heard).timers[0]?.stopped).toBe(true);
});
