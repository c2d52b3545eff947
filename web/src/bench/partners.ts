import type { Schemas } from '../api/client';

type Run = Schemas['RunDto'];

/** A kind of run that was measured before the work, and whether there is one like it after it. */
export interface Partner {
  run: Run;
  label: string;
  paired: boolean;
}

/** Runs are alike by load, fan and settings; which are compared in the end is the server's word. */
const kindOf = (run: Run) =>
  [run.workload ?? '', run.fan?.mode ?? '', run.fan?.percent ?? '', run.settings ?? '']
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
    run.fan?.mode === 'auto'
      ? 'fan automatic'
      : run.fan?.percent === 100
        ? 'fan full'
        : typeof run.fan?.percent === 'number'
          ? `fan ${String(run.fan.percent)} %`
          : 'fan fixed';
  return `${run.workload ?? ''}, ${fan}, ${run.settings ?? ''}`;
}
