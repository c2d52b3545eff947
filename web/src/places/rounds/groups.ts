import type { QueueItem, Schemas } from '../../api/client';
import { count, daysBetween, fullDay, kelvin } from '../../words/format';

/** How the rows of Rounds are put together. */
export type Grouping = 'urgency' | 'zone' | 'warranty';

export interface Filter {
  text: string;
  site: string | null;
  zone: string | null;
  kind: string | null;
  urgency: string | null;
  only: string | null;
}

/** What Rounds can be narrowed to from the lines under its headline. */
const ONLY: Record<string, (item: QueueItem) => boolean> = {
  silent: (item) => item.silence !== null,
  measure: (item) => item.measure !== null,
};

export interface Group {
  key: string;
  title: string;
  items: QueueItem[];
  /** Groups that ask for nothing start closed. */
  calm: boolean;
}

/** A machine that no service helps: its remedy is elsewhere. */
export function isElsewhere(item: QueueItem): boolean {
  return item.service === null && ['room', 'settings', 'sensor', 'cooler-limited'].includes(item.cause);
}

export function matches(item: QueueItem, filter: Filter): boolean {
  if (filter.site && item.site !== filter.site) return false;
  if (filter.zone && item.zone !== filter.zone) return false;
  if (filter.kind && item.kind !== filter.kind) return false;
  if (filter.urgency && item.urgency !== filter.urgency) return false;
  if (filter.only && ONLY[filter.only]?.(item) === false) return false;
  if (!filter.text) return true;
  const haystack =
    `${item.asset} ${item.model} ${item.zoneName} ${item.cause} ${item.service ?? ''}`.toLowerCase();
  return filter.text
    .toLowerCase()
    .split(/\s+/)
    .every((word) => haystack.includes(word));
}

const BY_URGENCY: readonly {
  key: string;
  title: string;
  calm: boolean;
  takes: (item: QueueItem) => boolean;
}[] = [
  { key: 'aside', title: 'Set aside', calm: true, takes: (i) => i.setAside !== null },
  { key: 'now', title: 'Now', calm: false, takes: (i) => i.urgency === 'now' },
  { key: 'next', title: 'Next', calm: false, takes: (i) => i.urgency === 'next' },
  { key: 'soon', title: 'Soon', calm: false, takes: (i) => i.urgency === 'soon' },
  {
    key: 'elsewhere',
    title: 'No service helps: the remedy is elsewhere',
    calm: false,
    takes: (i) => isElsewhere(i) && i.urgency !== 'unknown',
  },
  { key: 'watch', title: 'Drifting, without a date yet', calm: false, takes: (i) => i.urgency === 'watch' },
  { key: 'unknown', title: 'Too little to say', calm: true, takes: (i) => i.urgency === 'unknown' },
  { key: 'fine', title: 'Fine', calm: true, takes: () => true },
];

const SHOWN_ORDER = ['now', 'next', 'soon', 'watch', 'elsewhere', 'aside', 'unknown', 'fine'];

export function group(items: readonly QueueItem[], grouping: Grouping): Group[] {
  if (grouping === 'zone') {
    const zones = new Map<string, Group>();
    for (const item of items) {
      const zone = zones.get(item.zone) ?? { key: item.zone, title: item.zoneName, items: [], calm: false };
      zone.items.push(item);
      zones.set(item.zone, zone);
    }
    return [...zones.values()];
  }
  if (grouping === 'warranty') {
    const days = new Map<string, Group>();
    const waiting = items.filter((i) => i.warranty).sort(byOpening);
    for (const item of waiting) {
      const from = item.warranty!.openableFrom;
      const entry = days.get(from) ?? {
        key: from,
        title: `Openable from ${fullDay(from)}`,
        items: [],
        calm: false,
      };
      entry.items.push(item);
      days.set(from, entry);
    }
    return [...days.values()];
  }
  const groups = new Map<string, Group>();
  for (const item of items) {
    const rule = BY_URGENCY.find((r) => r.takes(item))!;
    const entry = groups.get(rule.key) ?? { key: rule.key, title: rule.title, items: [], calm: rule.calm };
    entry.items.push(item);
    groups.set(rule.key, entry);
  }
  return SHOWN_ORDER.flatMap((key) => groups.get(key) ?? []);
}

const byOpening = (a: QueueItem, b: QueueItem): number =>
  a.warranty!.openableFrom.localeCompare(b.warranty!.openableFrom) || a.rank - b.rank;

/** Bench minutes of a group's recommended work. */
export function minutesOf(items: readonly QueueItem[]): number {
  return items.reduce((sum, item) => sum + (item.minutes ?? 0), 0);
}

/** The sentence at the top: how many machines need work, and how soon; and as of when, where readings have ended. */
export function headline(queue: Schemas['QueueAnswer']): string {
  const at = (urgency: string) => queue.counts[urgency] ?? 0;
  const pressing = at('now') + at('next');
  if (queue.total === 0) return 'No machines yet.';
  const asOf = queue.asOf < queue.today ? `As of ${fullDay(queue.asOf)}: ` : '';
  const byCalendar = queue.neverMeasured === queue.total;
  if (pressing === 0)
    return `${asOf}${asOf ? 'none' : 'None'} of ${count(queue.total, 'machine')} needs work.`;
  const of = `${asOf}${String(pressing)} of ${count(queue.total, 'machine')} ${pressing === 1 ? 'needs' : 'need'} work`;
  if (byCalendar && at('now') === 0) return `${of} by the calendar. Nothing has been measured yet.`;
  return `${of}${at('now') === 0 ? '' : at('now') === pressing ? ', now' : `, ${String(at('now'))} of them now`}.`;
}

/** One line under the headline. */
export interface Remark {
  text: string;
  /** The rows that it speaks of, to be shown alone. */
  only?: string;
}

/** What is said under the headline. */
export function remarks(queue: Schemas['QueueAnswer']): Remark[] {
  const said: Remark[] = [];
  const at = (urgency: string) => queue.counts[urgency] ?? 0;
  if (queue.asOf < queue.today)
    said.push({
      text: `Readings ended ${count(daysBetween(queue.asOf, queue.today), 'day')} ago: see to their source, or bring in newer ones.`,
    });
  for (const zone of queue.warmZones)
    said.push({
      text: `${zone.name} is ${kelvin(zone.kelvin)} warm as a whole: that is the air, not its ${count(zone.machines, 'machine')}.`,
    });
  if (at('soon')) said.push({ text: `${count(at('soon'), 'more is', 'more are')} due soon.` });
  if (at('watch')) said.push({ text: `${count(at('watch'), 'is', 'are')} to be watched.` });
  if (at('fine')) said.push({ text: `${count(at('fine'), 'is', 'are')} fine.` });
  if (at('unknown'))
    said.push({ text: `${count(at('unknown'), 'has', 'have')} too little measured to say.` });
  const silent = queue.items.filter(ONLY.silent!).length;
  if (silent)
    said.push({
      text: `${count(silent, 'machine has', 'machines have')} stopped reporting.`,
      only: 'silent',
    });
  const measure = queue.items.filter(ONLY.measure!).length;
  if (measure)
    said.push({
      text: `${queue.neverMeasured === queue.total ? '' : `${count(queue.neverMeasured, 'was', 'were')} never measured. `}${
        measure === 1 ? 'One run would tell most' : `${String(measure)} runs would tell most`
      }.`,
      only: 'measure',
    });
  return said;
}
