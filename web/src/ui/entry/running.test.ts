import { expect, test } from 'vitest';
import { readingOf, runningTags, tableOf } from './running';

test('tags run on with as many digits', () => {
  expect(runningTags('PC-008', 3)).toEqual(['PC-008', 'PC-009', 'PC-010']);
  expect(runningTags('R2-9', 2)).toEqual(['R2-9', 'R2-10']);
  expect(runningTags('Heron', 1)).toEqual(['Heron']);
  expect(runningTags('Heron', 2)).toEqual(['Heron-1', 'Heron-2']);
});

test('a table holds what was typed, a line a machine, and no cell breaks it', () => {
  expect(tableOf(['A', 'B'], { kind: 'desktop', model: 'Petrel\t7', dutyHoursPerDay: 6.5, zone: null })).toBe(
    'tag\tkind\tmodel\tdutyHoursPerDay\tzone\nA\tdesktop\tPetrel 7\t6.5\t\nB\tdesktop\tPetrel 7\t6.5\t',
  );
});

test('a reading holds only what was typed', () => {
  expect(
    readingOf('PC,1', '2026-11-27T08:00:00.000Z', {
      air: 22.5,
      power: null,
      rpm: null,
      parts: { cpu: 81, gpu: null },
    }),
  ).toBe('time,asset,workload,ambient_c,cpu_c\n2026-11-27T08:00:00.000Z,"PC,1",under load,22.5,81\n');
});
