import { plural, t } from '@lingui/core/macro';
import type { QueueItem, Schemas } from '../../api/client';
import { daysBetween, fullDay, kelvin } from '../../words/format';
import { say } from '../../words/message';

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
  measure: (item) => item.measure !== null && item.needsWorkProbability === null,
  unsure: (item) => item.measure !== null && item.needsWorkProbability !== null,
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

interface Rule {
  key: string;
  title: string;
  calm: boolean;
  takes: (item: QueueItem, asOf: string) => boolean;
}

/** The first rule that takes a machine is its group: every machine stands in one. */
const BY_URGENCY: readonly Rule[] = [
  { key: 'aside', title: t`Set aside`, calm: true, takes: (i) => i.setAside !== null },
  { key: 'now', title: t`Now`, calm: false, takes: (i) => i.urgency === 'now' },
  { key: 'next', title: t`Next`, calm: false, takes: (i) => i.urgency === 'next' },
  {
    key: 'overdue',
    title: t`Overdue by the calendar`,
    calm: false,
    takes: (i, asOf) => i.urgency === 'soon' && i.byCalendar && i.due !== null && i.due <= asOf,
  },
  { key: 'soon', title: t`Soon`, calm: false, takes: (i) => i.urgency === 'soon' },
  {
    key: 'elsewhere',
    title: t`Warm, and no service helps`,
    calm: false,
    takes: (i) => isElsewhere(i) && i.urgency !== 'unknown',
  },
  { key: 'watch', title: t`Getting warmer, no date yet`, calm: false, takes: (i) => i.urgency === 'watch' },
  { key: 'unknown', title: t`Too little measured`, calm: true, takes: (i) => i.urgency === 'unknown' },
  { key: 'fine', title: t`Fine`, calm: true, takes: () => true },
];

const SHOWN_ORDER = ['now', 'next', 'soon', 'overdue', 'watch', 'elsewhere', 'aside', 'unknown', 'fine'];

const ruleOf = (item: QueueItem, asOf: string): Rule => BY_URGENCY.find((r) => r.takes(item, asOf))!;

/** How the rows of a group follow each other. */
export type Order = 'pressing' | 'tag' | 'date' | 'minutes';

const ORDERS: Record<Order, (a: QueueItem, b: QueueItem) => number> = {
  pressing: (a, b) => a.rank - b.rank,
  tag: (a, b) => a.asset.localeCompare(b.asset, undefined, { numeric: true }),
  date: (a, b) =>
    (a.actionDate ?? a.due ?? '9').localeCompare(b.actionDate ?? b.due ?? '9') || a.rank - b.rank,
  minutes: (a, b) => (a.minutes ?? Infinity) - (b.minutes ?? Infinity) || a.rank - b.rank,
};

/** The same rows in another order. */
export const inOrder = (items: readonly QueueItem[], order: Order): QueueItem[] =>
  order === 'pressing' ? [...items] : items.toSorted(ORDERS[order]);

export function group(items: readonly QueueItem[], grouping: Grouping, asOf: string): Group[] {
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
        title: t`Openable from ${fullDay(from)}`,
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
    const rule = ruleOf(item, asOf);
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
  return items.reduce(
    (sum, item) => sum + ((ONLY.unsure!(item) ? item.measure?.minutes : item.minutes) ?? 0),
    0,
  );
}

/** How many machines stand in each group; they add up to all of them. */
function countsOf(queue: Schemas['QueueAnswer']): Record<string, number> {
  const counts: Record<string, number> = {};
  // Without network only the first rows are kept: the server's own counts stand for the rest.
  if (queue.items.length < queue.total) return { ...queue.counts, aside: queue.setAside };
  for (const item of queue.items) {
    const { key } = ruleOf(item, queue.asOf);
    counts[key] = (counts[key] ?? 0) + 1;
  }
  return counts;
}

/** The sentence at the top: how many machines need work, and how soon; and as of when, where readings have ended. */
export function headline(queue: Schemas['QueueAnswer']): string {
  const { now = 0, next = 0 } = countsOf(queue);
  const pressing = now + next;
  if (queue.judgedAt === null && queue.pending) return t`The machines are being judged for the first time.`;
  if (queue.total === 0) return t`No machines yet.`;
  const machines = plural(queue.total, { one: '# machine', other: '# machines' });
  const need = plural(pressing, {
    0: `None of ${machines} needs work`,
    one: `# of ${machines} needs work`,
    other: `# of ${machines} need work`,
  });
  const said =
    pressing > 0 && now === 0 && queue.neverMeasured === queue.total
      ? t`${need} by the calendar. Nothing has been measured yet.`
      : now === 0
        ? `${need}.`
        : now === pressing
          ? t`${need}, now.`
          : t`${need}, ${now} of them now.`;
  return queue.asOf < queue.today ? t`As of ${fullDay(queue.asOf)}: ${said}` : said;
}

/** One line under the headline. */
export interface Remark {
  text: string;
  /** The rows that it speaks of, to be shown alone. */
  only?: string;
}

/** What is said of each group but the pressing ones, in the order in which they stand. */
const REMARKS: readonly (readonly [group: string, says: (n: number) => string])[] = [
  ['soon', (n) => plural(n, { one: '# is due soon', other: '# are due soon' })],
  [
    'overdue',
    (n) => plural(n, { one: '# is overdue by the calendar', other: '# are overdue by the calendar' }),
  ],
  ['watch', (n) => plural(n, { one: '# is getting warmer', other: '# are getting warmer' })],
  [
    'elsewhere',
    (n) => plural(n, { one: '# is warm and no service helps', other: '# are warm and no service helps' }),
  ],
  ['aside', (n) => plural(n, { one: '# is set aside', other: '# are set aside' })],
  ['unknown', (n) => plural(n, { one: '# has too little measured', other: '# have too little measured' })],
  ['fine', (n) => plural(n, { one: '# is fine', other: '# are fine' })],
];

/** What is said under the headline: the room first, since no service of its machines would help. */
export function remarks(queue: Schemas['QueueAnswer']): Remark[] {
  const said: Remark[] = [];
  if (queue.asOf < queue.today)
    said.push({
      text: t`Readings ended ${plural(daysBetween(queue.asOf, queue.today), { one: '# day', other: '# days' })} ago: see to their source, or bring in newer ones.`,
    });
  for (const zone of queue.warmZones)
    said.push({
      text: t`${zone.name} is ${kelvin(zone.kelvin)} too warm as a whole: see to its air before its ${plural(zone.machines, { one: '# machine', other: '# machines' })}.`,
    });
  for (const event of queue.events) said.push({ text: say(event.message) });
  const counts = countsOf(queue);
  const others = REMARKS.flatMap(([key, says]) => (counts[key] ? [says(counts[key])] : []));
  if (others.length > 0) said.push({ text: `${others.join(', ')}.` });
  const silent = queue.items.filter(ONLY.silent!).length;
  if (silent)
    said.push({
      text: plural(silent, {
        one: '# machine has stopped reporting.',
        other: '# machines have stopped reporting.',
      }),
      only: 'silent',
    });
  const unsure = queue.items.filter(ONLY.unsure!).length;
  if (unsure)
    said.push({
      text: plural(unsure, {
        one: '# machine may need work or not: a run decides it.',
        other: '# machines may need work or not: a run of each decides it.',
      }),
      only: 'unsure',
    });
  const measure = queue.items.filter(ONLY.measure!).length;
  if (measure)
    said.push({
      text: [
        queue.neverMeasured === queue.total
          ? ''
          : plural(queue.neverMeasured, { one: '# was never measured.', other: '# were never measured.' }),
        plural(measure, { one: 'One run would tell most.', other: '# runs would tell most.' }),
      ]
        .filter((part) => part !== '')
        .join(' '),
      only: 'measure',
    });
  return said;
}
