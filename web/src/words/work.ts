import { t } from '@lingui/core/macro';
import { day, kelvin, minutes, partName } from './format';
import type { Schemas, ServiceLevel } from '../api/client';
import { word } from './word';

/** Services that take wear away, and changes that make the cooling another one. */
const LEVEL_NAMES: Record<ServiceLevel, string> = {
  inspect: t`inspect`,
  'blow-out': t`blow-out`,
  'dust-out': t`dust-out`,
  'fan-swap': t`fan-swap`,
  repaste: t`repaste`,
  repad: t`repad`,
  'other-paste': t`paste of another kind`,
  'other-pads': t`pads of another kind`,
  'cooler-swap': t`another cooler`,
  'add-on-fan': t`an add-on fan`,
  undervolt: t`undervolting`,
  stand: t`a stand`,
  filter: t`a dust filter`,
};

const CHANGES: ReadonlySet<ServiceLevel> = new Set<ServiceLevel>([
  'other-paste',
  'other-pads',
  'cooler-swap',
  'add-on-fan',
  'undervolt',
  'stand',
  'filter',
]);

/** A level as people call it. */
export const levelName = (level: ServiceLevel): string => LEVEL_NAMES[level];

/** What can be done, for a list to choose from: services first, changes of the cooling apart. */
export function levelChoices(levels: readonly ServiceLevel[]) {
  const choice = (level: ServiceLevel) => ({ value: level, label: levelName(level) });
  return [
    { label: t`Service`, options: levels.filter((l) => !CHANGES.has(l)).map(choice) },
    { label: t`Change of the cooling`, options: levels.filter((l) => CHANGES.has(l)).map(choice) },
  ];
}

/** All levels. */
export const LEVELS = Object.keys(LEVEL_NAMES) as readonly ServiceLevel[];

/** Products in words. */
export const PRODUCTS: Record<Schemas['ProductKind'], string> = {
  paste: t`Paste`,
  pads: t`Pads`,
  putty: t`Putty`,
  alcohol: t`Alcohol`,
  remover: t`Paste remover`,
  cooler: t`Cooler`,
  fan: t`Fan`,
  stand: t`Stand`,
  filter: t`Filter`,
  wipes: t`Wipes`,
  swabs: t`Swabs`,
};

/** How paste is laid on. */
export const PATTERNS: Record<Schemas['PastePattern'], string> = {
  spread: t`spread`,
  line: t`line`,
  dot: t`dot`,
  cross: t`cross`,
};

/** Where screws sit. */
export const SCREW_PLACES: Record<Schemas['ScrewPlace'], string> = {
  cover: t`cover`,
  shroud: t`shroud`,
  fan: t`fan`,
  'back-plate': t`back plate`,
  cooler: t`cooler`,
  board: t`board`,
};

/** The stages of a job in words. */
export const STAGES: Record<Schemas['Stage'], string> = {
  'measure-before': t`Measure before`,
  prepare: t`Prepare`,
  'make-safe': t`Make safe`,
  open: t`Open`,
  inspect: t`Look`,
  clean: t`Clean`,
  pads: t`Pads`,
  paste: t`Paste`,
  tighten: t`Tighten`,
  reconnect: t`Reconnect and count`,
  'test-before-closing': t`Test before closing`,
  close: t`Close`,
  'measure-after': t`Measure after`,
  settle: t`Let it settle`,
  file: t`File`,
};

/** What is looked at, in words. */
export const SUBJECTS: Record<Schemas['FindingSubject'], string> = {
  dust: t`Dust in the fins`,
  mesh: t`Intake mesh`,
  'fan-spin': t`Fan, turned by hand`,
  'fan-noise': t`Fan, by ear`,
  liquid: t`Liquid marks`,
  seal: t`Seal`,
  corrosion: t`Corrosion`,
  paste: t`Paste`,
  coverage: t`The paste covered`,
  pads: t`Pads`,
};

/** Complaints in words. */
export const COMPLAINTS: Record<Schemas['ComplaintKind'], string> = {
  'switches-off': t`switches off`,
  crashes: t`crashes`,
  slow: t`is slow`,
  loud: t`is loud`,
  'got-wet': t`got wet`,
  smells: t`smells`,
  dropped: t`was dropped`,
  other: t`something else`,
};

/** Materials in words, with the step in which they are counted. */
export const MATERIALS: Record<Schemas['MaterialKind'], { name: string; unit: string; step: number }> = {
  'paste-grams': { name: t`Paste`, unit: 'g', step: 0.2 },
  'pad-pieces': { name: t`Pads`, unit: t`pieces`, step: 1 },
  'putty-grams': { name: t`Putty`, unit: 'g', step: 1 },
  wipes: { name: t`Wipes`, unit: t`pieces`, step: 1 },
  swabs: { name: t`Swabs`, unit: t`pieces`, step: 1 },
  'alcohol-millilitres': { name: t`Alcohol`, unit: 'ml', step: 5 },
  fans: { name: t`Fans`, unit: t`pieces`, step: 1 },
};

/** Phases of measuring in words. */
export const PHASES: Record<Schemas['RunPhase'], string> = {
  before: t`Before`,
  after: t`After`,
  recheck: t`A week later`,
};

/** How a job stands, or how it ended. */
export function jobWords(job: Schemas['JobSummary']): string {
  switch (job.state) {
    case 'open':
      return t`at the bench`;
    case 'waiting-for-proof':
      return t`done, waiting for proof`;
    case 'abandoned':
      return t`given up`;
    default: {
      const best = job.verdict?.parts.reduce(
        (least, p) => (p.changeKelvin < least.changeKelvin ? p : least),
        job.verdict.parts[0]!,
      );
      return `${word(job.verdict?.outcome ?? 'closed')}${best ? t`, ${kelvin(best.changeKelvin)} on the ${partName(best.part)}` : ''}`;
    }
  }
}

/** What a machine is reported to do. */
export const SYMPTOM_WORDS: Record<Schemas['SymptomKind'], string> = {
  crash: t`crashes or hangs`,
  shutdown: t`switches itself off`,
  throttling: t`slow under load`,
  noise: t`loud`,
  wet: t`got wet`,
  smell: t`smells`,
  dropped: t`was dropped`,
  other: t`something else`,
};

/** What is advised on a machine: the same on its row and on its page. */
export interface Work {
  /** The level, or null where no service helps. */
  what: string | null;
  /** How long it takes. */
  takes: string | null;
  /** By when, and why then. */
  when: string | null;
}

/** What is advised on a machine, how long it takes and by when. */
export function workOf(a: {
  service: ServiceLevel | null;
  minutes: number | null;
  urgency: Schemas['Urgency'];
  actionDate: string | null;
  due: string | null;
  byCalendar: boolean;
  asOf: string;
  needsWorkProbability?: number | null;
  measure?: { minutes: number } | null;
}): Work {
  // Where it is not known yet whether it needs work, a run decides that first.
  if (a.measure && a.needsWorkProbability != null)
    return { what: t`measure first`, takes: minutes(a.measure.minutes), when: null };
  const passed = a.actionDate !== null && a.actionDate <= a.asOf;
  const overdue = a.due !== null && a.due <= a.asOf;
  const when =
    a.urgency === 'now'
      ? t`today`
      : a.byCalendar && a.due && overdue
        ? t`overdue since ${day(a.due)}`
        : passed
          ? t`past its action line`
          : a.actionDate
            ? t`by ${day(a.actionDate)}`
            : a.due && a.service && a.urgency === 'soon'
              ? t`due ${day(a.due)}`
              : null;
  return {
    what: a.service && levelName(a.service),
    takes: a.service && a.minutes !== null ? minutes(a.minutes) : null,
    when,
  };
}

const WEAR: ReadonlySet<Schemas['Cause']> = new Set<Schemas['Cause']>([
  'dust',
  'paste',
  'pads',
  'fan',
  'mount',
]);

/** The cause that stands over a machine's reason: what little wear there is does not where the calendar alone asks. */
export const causeShown = (a: { cause: Schemas['Cause']; byCalendar: boolean }): Schemas['Cause'] =>
  a.byCalendar && WEAR.has(a.cause) ? 'none' : a.cause;
