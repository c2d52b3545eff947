import type { Schemas } from '../api/client';

type Run = Schemas['RunDto'];

/** The fields of a run's form, in the reader's unit of temperature. */
export interface Fields {
  workload: string;
  minutes: number;
  air: 'measured' | 'guessed' | 'unknown';
  ambient: number | null;
  from: number | null;
  to: number | null;
  mode: 'fixed' | 'auto';
  percent: number | null;
  rpm: number | null;
  settings: string;
  position: string;
  powerWatts: number | null;
  clockMhz: number | null;
  score: number | null;
  throttled: boolean;
  /** Where the figures come from, and how far they had settled where a log says so. */
  source: Schemas['RunSource'];
  settled: boolean | null;
  shareOfRise: number | null;
  failed: number | null;
  parts: Record<string, number | null>;
  maxima: Record<string, number | null>;
}

/** What a form begins with: a kept draft, else the first run's conditions, else what the model's notes remember. */
export function startingPoint(
  first: Run | null,
  protocol: Schemas['TestProtocol'] | null,
  draft: string,
): Fields {
  const kept = localStorage.getItem(draft);
  const fresh: Fields = {
    workload: first?.workload ?? protocol?.load ?? 'steady compute',
    minutes: first?.minutes ?? protocol?.minutes ?? 20,
    air: 'measured',
    ambient: null,
    from: null,
    to: null,
    mode: first?.fan?.mode ?? protocol?.fan ?? 'fixed',
    percent: first?.fan?.percent ?? protocol?.fanPercent ?? null,
    rpm: null,
    settings: first?.settings ?? protocol?.settings ?? 'stock',
    position: first?.position ?? protocol?.position ?? '',
    powerWatts: null,
    clockMhz: null,
    score: null,
    throttled: false,
    source: 'typed',
    settled: null,
    shareOfRise: null,
    failed: null,
    parts: {},
    maxima: {},
  };
  return kept ? { ...fresh, ...(JSON.parse(kept) as Partial<Fields>) } : fresh;
}

/** Common practice, no source: under a quarter of an hour many machines have not shown their peak. */
const SETTLED_MINUTES = 15;

export function tooShort(
  run: Run,
  complaint: Schemas['ComplaintRecorded'] | null,
  phase: Schemas['RunPhase'],
): string[] {
  const found: string[] = [];
  if (run.minutes !== null && run.minutes < SETTLED_MINUTES && run.failedAfterMinutes === null)
    found.push(`Under ${String(SETTLED_MINUTES)} minutes it may still be rising when the test ends.`);
  const needed = typeof complaint?.minutesToFailure === 'number' ? 2 * complaint.minutesToFailure : null;
  if (phase === 'after' && needed !== null && run.minutes !== null && run.minutes < needed)
    found.push(
      `It used to fail after ${String(needed / 2)} minutes: it counts as fixed after ${String(needed)}.`,
    );
  return found;
}
