import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';

type Run = Schemas['RunAnswer'];

/** A kind of run that was measured before the work, and whether there is one like it after it. */
export interface Partner {
  run: Run;
  label: string;
  paired: boolean;
}

/** Runs are alike by load, fan and settings; which are compared in the end is the server's word. */
const kindOf = (run: Run) =>
  [run.workload, run.fan.mode, run.fan.percent ?? '', run.settings]
    .map((v) => String(v).trim().toLowerCase())
    .join('|');

/** The kinds of run before the work, each once, in the order in which they were measured. */
export function partnersOf(runs: readonly Schemas['JobRunAnswer'][], phase: Schemas['RunPhase']): Partner[] {
  const standing = runs.filter((r) => r.voided === null);
  const done = new Set(standing.filter((r) => r.phase === phase).map((r) => kindOf(r.run)));
  const kinds = new Map<string, Run>();
  for (const { run, phase: when } of standing)
    if (when === 'before' && !kinds.has(kindOf(run))) kinds.set(kindOf(run), run);
  return [...kinds].map(([kind, run]) => ({ run, label: labelOf(run), paired: done.has(kind) }));
}

/** A run by its load, fan and settings. */
export function labelOf(run: Run): string {
  const fan =
    run.fan.mode === 'auto'
      ? t`fan automatic`
      : run.fan.percent === 100
        ? t`fan full`
        : typeof run.fan.percent === 'number'
          ? t`fan ${String(run.fan.percent)} %`
          : t`fan fixed`;
  return `${run.workload}, ${fan}, ${run.settings}`;
}

/** Runs of one phase and kind that were repeated: their mean and how far they lie apart. */
export interface Repeats {
  label: string;
  phase: Schemas['RunPhase'];
  runs: number;
  /** °C over all runs, and the standard deviation of the rises over the air, or of the temperatures where an air is missing. */
  parts: { part: string; celsius: number; spreadKelvin: number }[];
}

/** Every kind of run that stands more than once. */
export function repeatsOf(runs: readonly Schemas['JobRunAnswer'][]): Repeats[] {
  const kinds = new Map<string, Schemas['JobRunAnswer'][]>();
  for (const r of runs.filter((x) => x.voided === null)) {
    const kind = `${r.phase}|${kindOf(r.run)}`;
    kinds.set(kind, [...(kinds.get(kind) ?? []), r]);
  }
  return [...kinds.values()]
    .filter((same) => same.length > 1)
    .map((same) => {
      const withAir = same.every((r) => typeof r.run.ambientCelsius === 'number');
      const names = same[0]!.run.parts.map((p) => p.part);
      return {
        label: labelOf(same[0]!.run),
        phase: same[0]!.phase,
        runs: same.length,
        parts: names.flatMap((part) => {
          const read = same.map((r) => r.run.parts.find((p) => p.part === part)?.celsius);
          if (!read.every((c) => typeof c === 'number')) return [];
          const over = read.map((c, i) => c - (withAir ? same[i]!.run.ambientCelsius! : 0));
          return [{ part, celsius: mean(read), spreadKelvin: deviation(over) }];
        }),
      };
    });
}

const mean = (of: readonly number[]) => of.reduce((a, b) => a + b, 0) / of.length;

const deviation = (of: readonly number[]) =>
  Math.sqrt(of.reduce((sum, v) => sum + (v - mean(of)) ** 2, 0) / (of.length - 1));
