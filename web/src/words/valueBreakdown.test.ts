import { describe, expect, test } from 'vitest';
import type { Schemas } from '../api/client';
import { valueBreakdown } from './valueBreakdown';

const level: Schemas['LevelAnswer'] = {
  level: 'repaste',
  part: 'core',
  kelvin: 9.4,
  minutes: 60,
  timedJobs: 0,
  provenShare: 1,
  provenJobs: 0,
  value: {
    throttling: 0,
    crashes: 0,
    ageing: 140,
    noise: -1.5,
    energy: 2.25,
    gain: 140.75,
    work: 45,
    material: 4,
    downtime: 0.3,
    risk: 3.6,
    warranty: 0,
    cost: 52.9,
    net: 87.85,
  },
  netLow: -20,
  netHigh: 260,
  perHour: 87.85,
};

describe('the making of a value', () => {
  const made = valueBreakdown(level.value, 'crowns');

  test('gains come first, costs carry a minus, what is nothing is left out', () => {
    expect(made.map(([what]) => what)).toEqual([
      'slower ageing',
      'a quieter fan',
      'electricity of the fan',
      'the technician’s time',
      'material',
      'work lost at the bench and in tests',
      'risk of breaking something',
      'left',
    ]);
    expect(made[3]![1]).toBe('−45 crowns');
    expect(made[1]![1]).toBe('−1.5 crowns');
    expect(made[7]![1]).toBe('88 crowns');
  });

  test('the lines above add up to what is left', () => {
    const { value: v } = level;
    const shown = v.ageing + v.noise + v.energy - v.work - v.material - v.downtime - v.risk;
    expect(shown).toBeCloseTo(v.net, 6);
  });
});
