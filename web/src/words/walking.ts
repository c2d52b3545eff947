import type { QueueItem } from '../api/client';

type Standing = Pick<QueueItem, 'asset' | 'place'>;

const byTag = (a: Standing, b: Standing) => a.asset.localeCompare(b.asset, undefined, { numeric: true });

/**
 * The order in which one walks through a zone: row by row of its floor plan, every other row backwards; machines that are not on
 * the plan follow by their tags.
 */
export function walkingOrder<T extends Standing>(items: readonly T[]): T[] {
  return items.toSorted((a, b) => {
    if (!a.place || !b.place) return a.place ? -1 : b.place ? 1 : byTag(a, b);
    if (a.place.row !== b.place.row) return a.place.row - b.place.row;
    const along = a.place.column - b.place.column;
    return (a.place.row % 2 === 0 ? along : -along) || byTag(a, b);
  });
}
