import { plural, t } from '@lingui/core/macro';
import type { Schemas } from '../api/client';
import { fullDay, tenths, whole } from './format';
import { PRODUCTS } from './work';

/** An amount on the shelf with its unit; two decimals below one. */
export function amount(value: number, unit: string): string {
  const figure = value >= 100 ? whole(value) : value >= 1 || value === 0 ? tenths(value) : hundredths(value);
  switch (unit) {
    case 'g':
      return t`${figure} g`;
    case 'ml':
      return t`${figure} ml`;
    case 'sheet':
      return value === 1 ? t`1 sheet` : t`${figure} sheets`;
    default:
      return figure;
  }
}

const hundredths = (value: number): string =>
  value.toLocaleString(undefined, { maximumFractionDigits: 2, minimumFractionDigits: 0 });

/** A length, mm, to a tenth, or a hundredth where it has one. */
export const mm = (value: number): string =>
  t`${value.toLocaleString(undefined, { minimumFractionDigits: 1, maximumFractionDigits: 2 })} mm`;

/** A width and a height, whole millimetres where they are. */
export const size = (width: number, height: number): string =>
  `${width.toLocaleString(undefined, { maximumFractionDigits: 1 })} × ${height.toLocaleString(undefined, { maximumFractionDigits: 1 })}`;

/** What a unit is called as the label of a field. */
export const UNITS: Record<string, string> = {
  g: t`g`,
  ml: t`ml`,
  sheet: t`sheets`,
  piece: t`pieces`,
};

/** The unit in which a kind of product is counted. */
export const unitOf = (kind: Schemas['ProductKind']): string =>
  kind === 'paste' || kind === 'putty'
    ? 'g'
    : kind === 'alcohol' || kind === 'remover'
      ? 'ml'
      : kind === 'pads'
        ? 'sheet'
        : 'piece';

/** What is missing, in a few words. */
export const missingWords = (m: {
  kind: Schemas['ProductKind'];
  amount: number;
  unit: string;
  thicknessMm: number | null;
}): string =>
  m.thicknessMm !== null
    ? t`${plural(m.amount, { one: '# pad', other: '# pads' })} of ${mm(m.thicknessMm)}`
    : m.unit === 'piece' && m.amount === 1
      ? PRODUCTS[m.kind]
      : `${PRODUCTS[m.kind]}, ${amount(m.amount, m.unit)}`;

/** A lot by what is printed on it and where it stands. */
export const lotWords = (l: { id: number; batch: string | null; place: string }): string =>
  l.batch ? t`lot ${l.id}, batch ${l.batch}, ${l.place}` : t`lot ${l.id}, ${l.place}`;

/** How long a lot may be used; null where nothing ages it. */
export const ageWords = (l: Schemas['LotAnswer']): string | null =>
  l.badBecause !== null
    ? t`not to be used: ${l.badBecause}`
    : l.lastDay === null
      ? null
      : l.expired
        ? t`expired on ${fullDay(l.lastDay)}`
        : t`until ${fullDay(l.lastDay)}`;
