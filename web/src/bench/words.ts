import type { Schemas, ServiceLevel } from '../api/client';

/** Service levels, the lightest first. */
export const LEVELS: readonly ServiceLevel[] = [
  'inspect',
  'blow-out',
  'dust-out',
  'fan-swap',
  'repaste',
  'repad',
];

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
