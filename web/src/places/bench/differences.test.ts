import { describe, expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { differences } from './differences';

const run = (part: Partial<Schemas['RunAnswer']>): Schemas['RunAnswer'] => ({
  workload: 'steady',
  minutes: 20,
  ambientCelsius: 25,
  ambientSpreadKelvin: null,
  fan: { mode: 'fixed', percent: 100, rpm: null },
  settings: 'stock',
  powerWatts: null,
  clockMhz: null,
  score: null,
  throttled: false,
  parts: [],
  position: null,
  failedAfterMinutes: null,
  source: null,
  settled: null,
  shareOfRise: null,
  startCelsius: null,
  slopeKelvinPerMinute: null,
  fanRamp: null,
  scoreUnit: null,
  ...part,
});

describe('before the after-run is kept', () => {
  it('equal conditions say nothing', () => expect(differences(run({}), run({}))).toEqual([]));

  it.each([
    [{ workload: 'light' }, 'The load was “steady”.'],
    [{ settings: 'raised' }, 'The settings were “stock”.'],
    [{ minutes: 12 }, 'The first run lasted 20 minutes.'],
    [{ fan: { mode: 'auto' as const, percent: null, rpm: null } }, 'The fan was fixed.'],
    [{ fan: { mode: 'fixed' as const, percent: 80, rpm: null } }, 'The fan ran at 100 %.'],
    [{ ambientCelsius: 28 }, 'The air is 3 K warmer; rises over it are compared.'],
  ])('%o is told', (change, words) => expect(differences(run({}), run(change))).toEqual([words]));
});
