import type { Schemas } from '../../../api/client';

/** What a step uses: products by their names, and amounts. */
export const USED_AT: Record<
  string,
  { products: readonly Schemas['ProductKind'][]; materials: readonly Schemas['MaterialKind'][] }
> = {
  'paste-off': { products: ['alcohol', 'remover'], materials: ['wipes', 'swabs', 'alcohol-millilitres'] },
  'paste-on': { products: ['paste'], materials: ['paste-grams'] },
  'pads-on': { products: ['pads'], materials: ['pad-pieces'] },
  'fan-swap': { products: ['fan'], materials: ['fans'] },
  'hot-swap': { products: ['fan'], materials: ['fans'] },
  'fan-on': { products: ['fan'], materials: ['fans'] },
  'dry-fit': { products: ['cooler'], materials: [] },
  stand: { products: ['stand'], materials: [] },
  filter: { products: ['filter'], materials: [] },
};

/** Whether a step keeps what was used or measured at it. */
export const usesSomething = (kind: string): boolean => kind === 'pads-off' || kind in USED_AT;
