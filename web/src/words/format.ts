import { i18n } from '@lingui/core';
import { plural, t } from '@lingui/core/macro';
import { preferences, usePreferences } from './preferences';

/** Numbers, dates and temperatures as the reader writes them. */
export const MINUS = '−';

/** Made when first used: each costs the browser some 20 ms, and the first page needs only some of them. */
const made = <T>(make: () => T): (() => T) => {
  let one: T | undefined;
  return () => (one ??= make());
};

const wholes = made(() => new Intl.NumberFormat(undefined, { maximumFractionDigits: 0 }));
const toTenths = made(
  () => new Intl.NumberFormat(undefined, { maximumFractionDigits: 1, signDisplay: 'negative' }),
);
const toExactTenths = made(
  () => new Intl.NumberFormat(undefined, { minimumFractionDigits: 1, maximumFractionDigits: 1 }),
);
const toHundredths = made(
  () => new Intl.NumberFormat(undefined, { minimumFractionDigits: 2, maximumFractionDigits: 2 }),
);
const date = made(() => new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short' }));
const dateWeekday = made(
  () => new Intl.DateTimeFormat(undefined, { weekday: 'short', day: 'numeric', month: 'short' }),
);
const dateYear = made(
  () => new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short', year: 'numeric' }),
);
const monthYear = made(() => new Intl.DateTimeFormat(undefined, { month: 'long', year: 'numeric' }));
const time = made(() => new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' }));
const dateTime = made(() => new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' }));

/** A number without its tenths. */
export function whole(value: number): string {
  return wholes().format(value).replace('-', MINUS);
}

/** A number to a tenth. */
export function tenths(value: number): string {
  return toTenths().format(value).replace('-', MINUS);
}

/** A number with its hundredths even where they are 0, so that a column can be added up. */
export function hundredths(value: number): string {
  return toHundredths().format(value).replace('-', MINUS);
}

/** A number with its tenth even where that is 0, so that a column can be added up. */
export function exactTenths(value: number): string {
  return toExactTenths().format(value).replace('-', MINUS);
}

/** A temperature difference in the reader's unit: a kelvin is 1.8 °F. */
export function kelvin(value: number): string {
  const { unit, scale } = differenceUnit();
  const shown = value * scale;
  return `${(Math.abs(shown) < 9.95 ? toTenths() : wholes()).format(shown).replace('-', MINUS)} ${unit}`;
}

/** The reader's unit of temperature differences, and what a kelvin is in it. */
export const differenceUnit = (): { unit: string; scale: number } =>
  preferences().unit === 'F' ? { unit: '°F', scale: 1.8 } : { unit: 'K', scale: 1 };

/** A temperature in the reader's unit, with so many decimals at most. */
export const celsiusFigure = (celsius: number, decimals: number): string => {
  const { unit } = preferences();
  const figure = inUnit(celsius, unit).toLocaleString(undefined, { maximumFractionDigits: decimals });
  return `${figure.replace('-', MINUS)} °${unit}`;
};

/** Kelvins with twice their standard uncertainty, where it is known. */
export function withUncertainty(value: number, expanded: number | null): string {
  return expanded === null ? kelvin(value) : `${kelvin(value)} ± ${kelvin(expanded)}`;
}

/** An amount in the house's currency, whole above ten. */
export function money(amount: number, currency: string): string {
  return `${(Math.abs(amount) < 9.95 ? toTenths() : wholes()).format(amount).replace('-', MINUS)} ${currency}`;
}

/** A day written YYYY-MM-DD, read as that day wherever the reader is. */
export function parseDay(text: string): Date {
  const [year, month, day] = text.split('-').map(Number);
  return new Date(year!, month! - 1, day);
}

/** Whole days from one day to another. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);
}

/** A day, with its year only where it could be mistaken. */
export function day(text: string, now = new Date()): string {
  const parsed = parseDay(text);
  const away = (parsed.getTime() - now.getTime()) / 86_400_000;
  return (parsed.getFullYear() === now.getFullYear() || Math.abs(away) < 200 ? date() : dateYear()).format(
    parsed,
  );
}

export function fullDay(text: string): string {
  return dateYear().format(parseDay(text));
}

/** A month, written such as 2026-11. */
export const month = (text: string): string => monthYear().format(parseDay(`${text}-01`));

/** A day with its weekday, as it stands over a day's work. */
export function weekday(text: string): string {
  return dateWeekday().format(parseDay(text));
}

/** What a clock shows so many minutes after midnight. */
export function clockAt(minutesOfDay: number): string {
  return time().format(new Date(2000, 0, 1, 0, minutesOfDay));
}

export function instant(text: string): string {
  return dateTime().format(new Date(text));
}

export function clock(text: string): string {
  return time().format(new Date(text));
}

/** Minutes as a technician says them: 35 min, 2 h, 2 h 45. */
export function minutes(total: number): string {
  if (total < 60) return t`${String(total)} min`;
  const rest = total % 60;
  return `${wholes().format(Math.floor(total / 60))} h${rest ? ` ${String(rest).padStart(2, '0')}` : ''}`;
}

export type TemperatureUnit = 'C' | 'F';

export function inUnit(celsius: number, unit: TemperatureUnit): number {
  return unit === 'F' ? celsius * 1.8 + 32 : celsius;
}

/** Temperatures in the reader's unit. */
export function useTemperature() {
  const { unit } = usePreferences();
  return {
    unit,
    degrees: (celsius: number) => `${wholes().format(inUnit(celsius, unit)).replace('-', MINUS)}°`,
    full: (celsius: number) => `${wholes().format(inUnit(celsius, unit)).replace('-', MINUS)} °${unit}`,
    exact: (celsius: number) => `${toTenths().format(inUnit(celsius, unit)).replace('-', MINUS)} °${unit}`,
    toCelsius: (value: number) => (unit === 'F' ? (value - 32) / 1.8 : value),
    fromCelsius: (celsius: number) => Math.round(inUnit(celsius, unit) * 10) / 10,
  };
}

/** A part as people call it. */
export function partName(part: string): string {
  const names: Record<string, string> = {
    cpu: t`processor`,
    core: t`core`,
    memory: t`memory`,
    gpu: t`graphics chip`,
    hotspot: t`hot spot`,
    vrm: t`regulators`,
  };
  return names[part] ?? part;
}

export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

export const KIND_NAMES: Record<string, string> = {
  'graphics-card': t`Graphics cards`,
  server: t`Servers`,
  laptop: t`Laptops`,
  desktop: t`Desktops`,
};

/** What became of the lines or readings of a file: also where all of it was there already. */
export function takenWords(accepted: number, duplicates: number, of: 'line' | 'reading'): string {
  const counted = (n: number) =>
    of === 'line'
      ? plural(n, { one: '# line', other: '# lines' })
      : plural(n, { one: '# reading', other: '# readings' });
  return accepted === 0 && duplicates > 0
    ? t`Already known: ${counted(duplicates)}. Nothing changed.`
    : t`${counted(accepted)} imported, ${whole(duplicates)} already known.`;
}

/** Names in a row, as the language strings them: a, b and c. */
export const listed = (names: readonly string[]): string =>
  new Intl.ListFormat(i18n.locale, { type: 'conjunction' }).format(names);
