import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';

type Run = Schemas['RunAnswer'];

/** The reader's unit of temperature. */
interface Unit {
  unit: 'C' | 'F';
  toCelsius: (shown: number) => number;
}

/** The fields of a run's form, in the reader's unit of temperature. */
export interface Fields {
  workload: string;
  minutes: number;
  air: 'measured' | 'guessed' | 'unknown';
  ambient: number | null;
  from: number | null;
  to: number | null;
  mode: 'fixed' | 'full' | 'auto';
  percent: number | null;
  rpm: number | null;
  settings: string;
  position: string;
  powerWatts: number | null;
  clockMhz: number | null;
  score: number | null;
  scoreUnit: string;
  /** The hottest part at the start. */
  start: number | null;
  throttled: boolean;
  /** Where the figures come from, and how far they had settled where a log says so. */
  source: Schemas['RunSource'];
  settled: boolean | null;
  shareOfRise: number | null;
  slope: number | null;
  ramp: number | null;
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
    workload: protocol?.load ?? 'steady compute',
    minutes: protocol?.minutes ?? 20,
    air: 'measured',
    ambient: null,
    from: null,
    to: null,
    mode: modeOf(protocol?.fan ?? 'fixed', protocol?.fanPercent),
    percent: protocol?.fanPercent ?? null,
    rpm: null,
    settings: protocol?.settings ?? 'stock',
    position: protocol?.position ?? '',
    powerWatts: null,
    clockMhz: null,
    score: null,
    scoreUnit: '',
    start: null,
    throttled: false,
    source: 'typed',
    settled: null,
    shareOfRise: null,
    slope: null,
    ramp: null,
    failed: null,
    parts: {},
    maxima: {},
    ...(first ? conditionsOf(first) : {}),
  };
  return kept ? { ...fresh, ...(JSON.parse(kept) as Partial<Fields>) } : fresh;
}

const modeOf = (mode: 'fixed' | 'auto', percent: number | null | undefined): Fields['mode'] =>
  mode === 'fixed' && percent === 100 ? 'full' : mode;

/** What a second run repeats of a first one: all but what it measured. */
export const conditionsOf = (run: Run) => ({
  workload: run.workload,
  minutes: run.minutes,
  mode: modeOf(run.fan.mode, run.fan.percent),
  percent: run.fan.percent,
  settings: run.settings,
  position: run.position ?? '',
  scoreUnit: run.scoreUnit ?? '',
});

/** Common practice, no source: under a quarter of an hour many machines have not shown their peak. */
const SETTLED_MINUTES = 15;

export function tooShort(
  run: Run,
  complaint: Schemas['ComplaintRecorded'] | null,
  phase: Schemas['RunPhase'],
): string[] {
  const found: string[] = [];
  if (run.minutes < SETTLED_MINUTES && run.failedAfterMinutes === null)
    found.push(t`Under ${String(SETTLED_MINUTES)} minutes it may still be rising when the test ends.`);
  const needed = typeof complaint?.minutesToFailure === 'number' ? 2 * complaint.minutesToFailure : null;
  if (phase === 'after' && needed !== null && run.minutes < needed)
    found.push(
      t`It used to fail after ${String(needed / 2)} minutes: it counts as fixed after ${String(needed)}.`,
    );
  return found;
}

/** Sensors read in steps of a kelvin where nobody says otherwise. */
const USUAL_STEP = 1;

/** The run that the fields tell of, in the units of the interface. */
export function runOf(f: Fields, parts: readonly string[], temperature: Unit): Run {
  const celsius = (v: number | null | undefined) => (typeof v === 'number' ? temperature.toCelsius(v) : null);
  const guessed = f.air === 'guessed' && typeof f.from === 'number' && typeof f.to === 'number';
  const kelvinOf = temperature.unit === 'F' ? 5 / 9 : 1;
  return {
    workload: f.workload,
    minutes: f.minutes,
    ambientCelsius:
      f.air === 'measured' ? celsius(f.ambient) : guessed ? celsius((f.from! + f.to!) / 2) : null,
    ambientSpreadKelvin: guessed ? Math.round((Math.abs(f.to! - f.from!) / 2) * kelvinOf * 100) / 100 : null,
    fan: {
      mode: f.mode === 'auto' ? 'auto' : 'fixed',
      percent: f.mode === 'full' ? 100 : (f.percent ?? null),
      rpm: f.rpm ?? null,
    },
    settings: f.settings,
    powerWatts: f.powerWatts ?? null,
    clockMhz: f.clockMhz ?? null,
    score: f.score ?? null,
    throttled: f.throttled,
    position: f.position.trim() || null,
    failedAfterMinutes: f.failed ?? null,
    source: f.source,
    settled: f.settled,
    shareOfRise: f.shareOfRise,
    startCelsius: celsius(f.start),
    slopeKelvinPerMinute: f.slope,
    fanRamp: f.ramp,
    scoreUnit: f.scoreUnit.trim() || null,
    parts: parts.flatMap((part) => {
      const settled = celsius(f.parts[part]);
      return settled === null
        ? []
        : [{ part, celsius: settled, resolutionKelvin: USUAL_STEP, maximumCelsius: celsius(f.maxima[part]) }];
    }),
  };
}

/** The fields of a run that is known already. */
export const fieldsOfRun = (run: Run, shown: (celsius: number | null | undefined) => number | null) => ({
  ...conditionsOf(run),
  air: run.ambientCelsius === null ? ('unknown' as const) : ('measured' as const),
  ambient: shown(run.ambientCelsius),
  rpm: run.fan.rpm,
  powerWatts: run.powerWatts,
  clockMhz: run.clockMhz,
  score: run.score,
  throttled: run.throttled,
  source: run.source ?? 'readings',
  settled: run.settled ?? null,
  shareOfRise: null,
  slope: null,
  ramp: null,
  parts: Object.fromEntries(run.parts.map((p) => [p.part, shown(p.celsius)])),
});

/** What a log tells of the fields; the others stay as they are. */
export const fieldsOfLog = (
  log: Schemas['RunLogAnswer'],
  source: Schemas['RunSource'],
  shown: (celsius: number | null | undefined) => number | null,
) => ({
  minutes: Math.max(1, Math.round(log.minutes * 10) / 10),
  ...(log.ambientCelsius === null ? {} : { air: 'measured' as const, ambient: shown(log.ambientCelsius) }),
  ...(log.fanPercent === null ? {} : { percent: log.fanPercent }),
  ...(log.fanRpm === null ? {} : { rpm: log.fanRpm }),
  ...(log.powerWatts === null ? {} : { powerWatts: log.powerWatts }),
  ...(log.clockMhz === null ? {} : { clockMhz: log.clockMhz }),
  throttled: log.throttledFrom !== null,
  failed: log.stoppedAt,
  source,
  settled: log.parts.every((p) => p.settled),
  shareOfRise: Math.min(1, ...log.parts.map((p) => p.shareReached)),
  slope: Math.max(...log.parts.map((p) => p.lastSlopeKelvinPerMinute)),
  ramp: log.fanRamp,
  start: shown(log.startCelsius),
  parts: Object.fromEntries(log.parts.map((p) => [p.part, shown(Math.round(p.settledCelsius * 10) / 10)])),
  maxima: Object.fromEntries(log.parts.map((p) => [p.part, shown(p.maximumCelsius)])),
});
