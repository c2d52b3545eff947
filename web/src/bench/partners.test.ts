import { expect, test } from 'vitest';
import type { Schemas } from '../api/client';
import { partnersOf } from './partners';

const run = (phase: string, workload: string, percent: number | null, voided: string | null = null) =>
  ({
    phase,
    voided,
    run: { workload, fan: { mode: percent === null ? 'auto' : 'fixed', percent }, settings: 'stock' },
  }) as unknown as Schemas['JobRunAnswer'];

test('each kind of run before the work is told once, and whether it was repeated after it', () => {
  const runs = [
    run('before', 'game', 60),
    run('before', 'Game ', 60),
    run('before', 'render', 100),
    run('before', 'idle', null, 'door open'),
    run('before', 'game', null),
    run('after', 'GAME', 60),
    run('after', 'render', 100, 'too short'),
  ];
  expect(partnersOf(runs, 'after').map((p) => [p.label, p.paired])).toEqual([
    ['game, fan 60 %, stock', true],
    ['render, fan full, stock', false],
    ['game, fan automatic, stock', false],
  ]);
});
