import { plural, t } from '@lingui/core/macro';
import type { Schemas } from '../api/client';
import { KIND_NAMES, kelvin, money, tenths, whole } from './format';

/** What a rule can set. */
export type Setting = keyof Schemas['RuleChange'];

/** For which machines it holds, as people say it. */
export const SCOPES: Record<Schemas['RuleScope'], string> = {
  house: t`the whole house`,
  site: t`site`,
  zone: t`zone`,
  kind: t`kind`,
  'zone-kind': t`kind in a zone`,
  model: t`model`,
  machine: t`machine`,
};

/** What a rule is for, as people call it. */
export function targetName({
  scope,
  key,
  name,
}: {
  scope: string;
  key: string;
  name: string | null;
}): string {
  if (scope === 'kind') return KIND_NAMES[key] ?? key;
  if (scope !== 'zone-kind') return name ?? key;
  const kind = key.slice(key.lastIndexOf('/') + 1);
  return t`${name ?? key}: ${KIND_NAMES[kind] ?? kind}`;
}

interface Choice {
  value: string;
  label: string;
}

/** When machines are served. */
export const SCHOOLS: readonly Choice[] = [
  { value: 'whichever-first', label: t`Whichever comes first` },
  { value: 'calendar', label: t`By the calendar` },
  { value: 'evidence', label: t`Only on evidence` },
  { value: 'failure', label: t`Only when it fails` },
];

export const EXTENTS: readonly Choice[] = [
  { value: 'least-that-cures', label: t`the least that cures` },
  { value: 'all-while-open', label: t`everything, while it is open` },
];

export const WARRANTIES: readonly Choice[] = [
  { value: 'air-only', label: t`air only, until it ends` },
  { value: 'ask-first', label: t`ask first, and record the answer` },
  { value: 'open-where-allowed', label: t`open where law and maker allow` },
];

export const PASTES: readonly Choice[] = [
  { value: 'by-model', label: t`by the model’s note` },
  { value: 'spread', label: t`spread` },
  { value: 'line', label: t`line` },
  { value: 'dot', label: t`dot` },
  { value: 'cross', label: t`cross` },
];

export const PADS: readonly Choice[] = [
  { value: 'keep-if-elastic', label: t`keep if elastic` },
  { value: 'always-renew', label: t`always renew` },
  { value: 'putty', label: t`putty` },
];

export const ALCOHOLS: readonly Choice[] = [
  { value: 'ninetynine', label: '99 %' },
  { value: 'ninety-plus', label: t`90 % or stronger` },
  { value: 'seventy', label: t`70 %, with time to dry` },
];

export const AIRS: readonly Choice[] = [
  { value: 'compressor', label: t`compressor, regulated` },
  { value: 'can', label: t`can` },
  { value: 'blower', label: t`blower` },
  { value: 'brush-only', label: t`none: brush only` },
];

export const OPENINGS: readonly Choice[] = [
  { value: 'reverse-of-numbers', label: t`highest number first` },
  { value: 'free', label: t`in any order` },
];

/** When machines may be down for work. */
export const DOWN_HOURS: readonly Choice[] = [
  { value: 'any-time', label: t`at any time` },
  { value: 'out-of-hours', label: t`out of hours: not from 8 to 18 on weekdays` },
  { value: 'weekends', label: t`on weekends` },
];

/** What a setting is called, and what it may be. */
export type SettingField = { name: Setting; label: string } & (
  | { as: 'choice'; options: readonly Choice[] }
  | { as: 'flag' }
  | { as: 'kelvin' | 'months' | 'money' | 'share'; min: number; max: number; first: number }
);

/** All that a rule can set, in the order of the page. */
export const SETTINGS: readonly SettingField[] = [
  { name: 'school', label: t`When it is served`, as: 'choice', options: SCHOOLS },
  { name: 'lookMonths', label: t`Look every`, as: 'months', min: 0, max: 240, first: 6 },
  { name: 'dustOutMonths', label: t`Dust-out every`, as: 'months', min: 0, max: 240, first: 12 },
  { name: 'repasteMonths', label: t`New paste every`, as: 'months', min: 0, max: 240, first: 36 },
  { name: 'fanMonths', label: t`A fan is changed at`, as: 'months', min: 0, max: 240, first: 60 },
  { name: 'usedHard', label: t`Used hard: loaded for hours every day`, as: 'flag' },
  { name: 'petsOrSmoke', label: t`Pets or smoke about it`, as: 'flag' },
  { name: 'saltAir', label: t`Salt air`, as: 'flag' },
  { name: 'dryAir', label: t`Dry air all year`, as: 'flag' },
  {
    name: 'actionMarginKelvin',
    label: t`The action line lies below a part’s limit by`,
    as: 'kelvin',
    min: 0,
    max: 30,
    first: 5,
  },
  {
    name: 'worthKelvin',
    label: t`Less than this is not worth opening a machine for`,
    as: 'kelvin',
    min: 0.5,
    max: 20,
    first: 2.5,
  },
  {
    name: 'muchKelvin',
    label: t`This much to win is worth opening it at once`,
    as: 'kelvin',
    min: 1,
    max: 40,
    first: 6,
  },
  { name: 'extent', label: t`How much is opened`, as: 'choice', options: EXTENTS },
  { name: 'warranty', label: t`Under warranty`, as: 'choice', options: WARRANTIES },
  { name: 'paste', label: t`Paste`, as: 'choice', options: PASTES },
  { name: 'pads', label: t`Pads`, as: 'choice', options: PADS },
  { name: 'alcohol', label: t`Alcohol`, as: 'choice', options: ALCOHOLS },
  { name: 'air', label: t`Air for blowing`, as: 'choice', options: AIRS },
  { name: 'opening', label: t`Screws come out`, as: 'choice', options: OPENINGS },
  { name: 'downHours', label: t`It may be down for work`, as: 'choice', options: DOWN_HOURS },
  { name: 'sparesQuarterEnd', label: t`Never in the last week of a quarter`, as: 'flag' },
  { name: 'twoPeople', label: t`It takes two to open it`, as: 'flag' },
  { name: 'machineHour', label: t`An hour of its full work`, as: 'money', min: 0, max: 1e9, first: 1 },
  { name: 'replacement', label: t`A new one`, as: 'money', min: 0, max: 1e9, first: 1000 },
  {
    name: 'downtimeShare',
    label: t`Share of its hour that is lost while it stands for a service`,
    as: 'share',
    min: 0,
    max: 1,
    first: 1,
  },
];

/** A number of months, or that there are none. */
export const monthsWord = (months: number): string =>
  months === 0 ? t`never` : plural(months, { one: '# month', other: '# months' });

/** A setting's value as people say it. */
export function settingValue(field: SettingField, value: unknown, currency: string): string {
  if (value === null || value === undefined) return field.name === 'usedHard' ? t`by its hours` : '–';
  switch (field.as) {
    case 'choice':
      return field.options.find((o) => o.value === value)?.label ?? '–';
    case 'flag':
      return value === true ? t`yes` : t`no`;
    case 'months':
      return monthsWord(value as number);
    case 'kelvin':
      return kelvin(value as number);
    case 'money':
      return money(value as number, currency);
    case 'share':
      return `${whole((value as number) * 100)} %`;
  }
}

/** What makes an interval longer or shorter. */
const INFLUENCES: Record<Schemas['IntervalInfluence'], string> = {
  dust: t`dust of its zone`,
  'pets-or-smoke': t`pets or smoke`,
  hours: t`its hours`,
  heat: t`heat of its zone`,
  altitude: t`altitude`,
  'salt-air': t`salt air`,
  'dry-air': t`dry air`,
};

/** How an interval comes about, in one line. */
export function intervalMaking(interval: Schemas['IntervalAnswer']): string {
  const factors = interval.factors.map((f) => `× ${String(f.times)} ${INFLUENCES[f.influence]}`).join(' ');
  const base = interval.usedHard
    ? t`${monthsWord(interval.baseMonths)}, used hard`
    : monthsWord(interval.baseMonths);
  const longest = interval.longestMonths;
  const bounded = typeof longest === 'number' && interval.months === longest;
  const result = t`${tenths(interval.months)} months`;
  return [
    base,
    factors,
    factors || bounded ? `= ${result}` : '',
    bounded ? t`(never longer than ${tenths(longest)})` : '',
  ]
    .filter(Boolean)
    .join(' ');
}
