import { day, kelvin, minutes, partName } from './format';
import type { Schemas, ServiceLevel } from '../api/client';

/** Services that take wear away, and changes that make the cooling another one. */
const LEVEL_NAMES: Record<ServiceLevel, string> = {
  inspect: 'inspect',
  'blow-out': 'blow-out',
  'dust-out': 'dust-out',
  'fan-swap': 'fan-swap',
  repaste: 'repaste',
  repad: 'repad',
  'other-paste': 'paste of another kind',
  'other-pads': 'pads of another kind',
  'cooler-swap': 'another cooler',
  'add-on-fan': 'an add-on fan',
  undervolt: 'undervolting',
  stand: 'a stand',
  filter: 'a dust filter',
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
    { label: 'Service', options: levels.filter((l) => !CHANGES.has(l)).map(choice) },
    { label: 'Change of the cooling', options: levels.filter((l) => CHANGES.has(l)).map(choice) },
  ];
}

/** All levels. */
export const LEVELS = Object.keys(LEVEL_NAMES) as readonly ServiceLevel[];

/** Products in words. */
export const PRODUCTS: Record<Schemas['ProductKind'], string> = {
  paste: 'Paste',
  pads: 'Pads',
  putty: 'Putty',
  alcohol: 'Alcohol',
  remover: 'Paste remover',
  cooler: 'Cooler',
  fan: 'Fan',
  stand: 'Stand',
  filter: 'Filter',
};

/** How paste is laid on. */
export const PATTERNS: Record<Schemas['PastePattern'], string> = {
  spread: 'spread',
  line: 'line',
  dot: 'dot',
  cross: 'cross',
};

/** Where screws sit. */
export const SCREW_PLACES: Record<Schemas['ScrewPlace'], string> = {
  cover: 'cover',
  shroud: 'shroud',
  fan: 'fan',
  'back-plate': 'back plate',
  cooler: 'cooler',
  board: 'board',
};

/** The stages of a job in words. */
export const STAGES: Record<Schemas['Stage'], string> = {
  'measure-before': 'Measure before',
  prepare: 'Prepare',
  'make-safe': 'Make safe',
  open: 'Open',
  inspect: 'Look',
  clean: 'Clean',
  pads: 'Pads',
  paste: 'Paste',
  tighten: 'Tighten',
  reconnect: 'Reconnect and count',
  'test-before-closing': 'Test before closing',
  close: 'Close',
  'measure-after': 'Measure after',
  settle: 'Let it settle',
  file: 'File',
};

/** What is looked at, in words. */
export const SUBJECTS: Record<Schemas['FindingSubject'], string> = {
  dust: 'Dust in the fins',
  mesh: 'Intake mesh',
  'fan-spin': 'Fan, turned by hand',
  'fan-noise': 'Fan, by ear',
  liquid: 'Liquid marks',
  seal: 'Seal',
  corrosion: 'Corrosion',
  paste: 'Paste',
  coverage: 'The paste covered',
  pads: 'Pads',
};

/** Complaints in words. */
export const COMPLAINTS: Record<Schemas['ComplaintKind'], string> = {
  'switches-off': 'switches off',
  crashes: 'crashes',
  slow: 'is slow',
  loud: 'is loud',
  'got-wet': 'got wet',
  smells: 'smells',
  dropped: 'was dropped',
  other: 'something else',
};

/** Materials in words, with the step in which they are counted. */
export const MATERIALS: Record<Schemas['MaterialKind'], { name: string; unit: string; step: number }> = {
  'paste-grams': { name: 'Paste', unit: 'g', step: 0.2 },
  'pad-pieces': { name: 'Pads', unit: 'pieces', step: 1 },
  'putty-grams': { name: 'Putty', unit: 'g', step: 1 },
  wipes: { name: 'Wipes', unit: 'pieces', step: 1 },
  swabs: { name: 'Swabs', unit: 'pieces', step: 1 },
  'alcohol-millilitres': { name: 'Alcohol', unit: 'ml', step: 5 },
  fans: { name: 'Fans', unit: 'pieces', step: 1 },
};

/** Phases of measuring in words. */
export const PHASES: Record<Schemas['RunPhase'], string> = {
  before: 'Before',
  after: 'After',
  recheck: 'A week later',
};

/** How a job stands, or how it ended. */
export function jobWords(job: Schemas['JobSummary']): string {
  switch (job.state) {
    case 'open':
      return 'at the bench';
    case 'waiting-for-proof':
      return 'done, waiting for proof';
    case 'abandoned':
      return 'given up';
    default: {
      const best = job.verdict?.parts.reduce(
        (least, p) => (p.changeKelvin < least.changeKelvin ? p : least),
        job.verdict.parts[0]!,
      );
      return `${(job.verdict?.outcome ?? 'closed').replace('-', ' ')}${best ? `, ${kelvin(best.changeKelvin)} on the ${partName(best.part)}` : ''}`;
    }
  }
}

/** What a machine is reported to do. */
export const SYMPTOM_WORDS: Record<Schemas['SymptomKind'], string> = {
  crash: 'crashes or hangs',
  shutdown: 'switches itself off',
  throttling: 'slow under load',
  noise: 'loud',
  wet: 'got wet',
  smell: 'smells',
  dropped: 'was dropped',
  other: 'something else',
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
  asOf: string;
}): Work {
  const passed = a.actionDate !== null && a.actionDate <= a.asOf;
  const overdue = a.due !== null && a.due <= a.asOf;
  const when =
    a.urgency === 'now'
      ? 'today'
      : passed
        ? 'past its action line'
        : a.actionDate
          ? `by ${day(a.actionDate)}`
          : a.due && a.service && overdue && ['next', 'soon'].includes(a.urgency)
            ? `overdue since ${day(a.due)}`
            : a.due && a.service && a.urgency === 'soon'
              ? `due ${day(a.due)}`
              : null;
  return {
    what: a.service && levelName(a.service),
    takes: a.service && a.minutes !== null ? minutes(a.minutes) : null,
    when,
  };
}
