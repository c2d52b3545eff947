import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { startingPoint, tooShort } from './runFields';

const store = new Map<string, string>();

beforeEach(() => vi.stubGlobal('localStorage', { getItem: (key: string) => store.get(key) ?? null }));
afterEach(() => store.clear());

const PROTOCOL: Schemas['TestProtocol'] = {
  load: 'both charts',
  minutes: 25,
  fan: 'auto',
  fanPercent: null,
  settings: 'quiet',
  position: 'propped',
};

const RUN = {
  workload: 'steady',
  minutes: 40,
  fan: { mode: 'fixed', percent: 70, rpm: 1900 },
  settings: 'stock',
  position: 'flat',
  failedAfterMinutes: null,
} as unknown as Schemas['RunAnswer'];

const complaint = (minutesToFailure: number | null): Schemas['ComplaintRecorded'] => ({
  what: 'crashes',
  load: null,
  minutesToFailure,
  reproduced: null,
});

test('a first run begins as the model is remembered, a second one as the first was', () => {
  const first = startingPoint(null, PROTOCOL, 'none');
  expect([first.workload, first.minutes, first.mode, first.settings, first.position]).toEqual([
    'both charts',
    25,
    'auto',
    'quiet',
    'propped',
  ]);
  const second = startingPoint(RUN, PROTOCOL, 'none');
  expect([second.minutes, second.mode, second.percent, second.position]).toEqual([40, 'fixed', 70, 'flat']);
  expect([second.ambient, second.rpm, second.parts]).toEqual([null, null, {}]);
});

test('a draft that was left lying is taken up again', () => {
  store.set('draft', JSON.stringify({ ambient: 24.5, parts: { core: 81 } }));
  const kept = startingPoint(RUN, null, 'draft');
  expect([kept.ambient, kept.parts, kept.minutes]).toEqual([24.5, { core: 81 }, 40]);
});

test('a short run is said to be short, unless it failed by itself', () => {
  expect(tooShort({ ...RUN, minutes: 12 }, null, 'before')).toHaveLength(1);
  expect(tooShort({ ...RUN, minutes: 12, failedAfterMinutes: 12 }, null, 'before')).toHaveLength(0);
  expect(tooShort(RUN, null, 'before')).toHaveLength(0);
});

test('after a complaint the run has to last twice as long as it took to fail', () => {
  expect(tooShort({ ...RUN, minutes: 29 }, complaint(15), 'after')[0]).toContain('after 30');
  expect(tooShort({ ...RUN, minutes: 30 }, complaint(15), 'after')).toHaveLength(0);
  expect(tooShort({ ...RUN, minutes: 29 }, complaint(15), 'before')).toHaveLength(0);
  expect(tooShort({ ...RUN, minutes: 29 }, complaint(null), 'after')).toHaveLength(0);
});
