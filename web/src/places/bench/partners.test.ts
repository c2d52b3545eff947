import { expect, test } from 'vitest';
import type { Schemas } from '../../api/client';
import { partnersOf, repeatsOf } from './partners';

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

test('repeats of one kind have a mean, and spread by their rises over the air', () => {
  const measured = (celsius: number, ambientCelsius: number, voided: string | null = null) => {
    const r = run('before', 'game', 60, voided);
    return { ...r, run: { ...r.run, ambientCelsius, parts: [{ part: 'cpu', celsius }] } } as typeof r;
  };
  expect(repeatsOf([measured(80, 24)])).toEqual([]);
  const [repeats] = repeatsOf([
    measured(80, 24),
    measured(83, 26),
    measured(84, 26),
    measured(99, 24, 'door open'),
  ]);
  expect(repeats).toMatchObject({ label: 'game, fan 60 %, stock', phase: 'before', runs: 3 });
  // Rises of 56, 57 and 58 K.
  expect(repeats!.parts[0]!.spreadKelvin).toBeCloseTo(1, 9);
  expect(repeats!.parts[0]!.celsius).toBeCloseTo(247 / 3, 9);
});
