import { describe, expect, it } from 'vitest';
import type { QueueItem, Schemas } from '../../api/client';
import { group, headline, inOrder, matches, minutesOf, remarks } from './groups';

const item = (part: Partial<QueueItem>): QueueItem =>
  ({
    asset: 'GC-1',
    model: 'Sorrel',
    zone: 'A',
    zoneName: 'Row A',
    site: 'S',
    kind: 'graphics-card',
    urgency: 'fine',
    cause: 'none',
    service: null,
    due: null,
    byCalendar: false,
    actionDate: null,
    rank: 1,
    minutes: null,
    setAside: null,
    silence: null,
    measure: null,
    ...part,
  }) as QueueItem;

const none = { text: '', site: null, zone: null, kind: null, urgency: null, only: null };

describe('Rounds', () => {
  it('says that it is being judged, not that nothing is there, before the first judgement', () => {
    const empty = { items: [], total: 0, asOf: '2026-11-27', today: '2026-11-27', counts: {}, setAside: 0 };
    const said = (more: object) => headline({ ...empty, ...more } as unknown as Schemas['QueueAnswer']);
    expect(said({ judgedAt: null, pending: true })).toBe('The machines are being judged for the first time.');
    expect(said({ judgedAt: '2026-11-27T10:00:00Z' })).toBe('No machines yet.');
  });

  it('keeps machines that no service helps apart, and shows the pressing groups first', () => {
    const groups = group(
      [
        item({ urgency: 'fine' }),
        item({ urgency: 'watch', cause: 'room' }),
        item({ urgency: 'watch', cause: 'dust', service: 'dust-out' }),
        item({ urgency: 'now', cause: 'dust', service: 'dust-out' }),
        item({ urgency: 'next', setAside: { reason: 'looked', until: '2030-01-01' } }),
      ],
      'urgency',
      '2026-11-27',
    );
    expect(groups.map((g) => g.key)).toEqual(['now', 'watch', 'elsewhere', 'aside', 'fine']);
    expect(groups.filter((g) => g.calm).map((g) => g.key)).toEqual(['aside', 'fine']);
  });

  it('groups by zone in the order of the queue', () => {
    const groups = group(
      [item({ zone: 'B', zoneName: 'Row B' }), item({}), item({ zone: 'B' })],
      'zone',
      '2026-11-27',
    );
    expect(groups.map((g) => [g.title, g.items.length])).toEqual([
      ['Row B', 2],
      ['Row A', 1],
    ]);
  });

  it('finds by every word, in tag, model, place, cause and work', () => {
    const dusty = item({ cause: 'dust', service: 'dust-out' });
    expect(matches(dusty, { ...none, text: 'sorrel DUST row' })).toBe(true);
    expect(matches(dusty, { ...none, text: 'sorrel paste' })).toBe(false);
    expect(matches(dusty, { ...none, zone: 'B' })).toBe(false);
  });

  it('counts the minutes of work', () =>
    expect(minutesOf([item({ minutes: 35 }), item({ minutes: 75 }), item({})])).toBe(110));

  /** A queue with so many machines of each urgency. */
  const queue = (
    urgencies: Partial<Record<Schemas['Urgency'], number>>,
    part: Partial<Schemas['QueueAnswer']> = {},
  ) => {
    const items = Object.entries(urgencies).flatMap(([urgency, n]) =>
      Array.from({ length: n }, () => item({ urgency: urgency as Schemas['Urgency'] })),
    );
    return {
      counts: {},
      setAside: 0,
      total: items.length,
      asOf: '2026-11-27',
      today: '2026-11-27',
      neverMeasured: 0,
      warmZones: [],
      events: [],
      items,
      ...part,
    } as unknown as Schemas['QueueAnswer'];
  };

  it('says how many need work', () => {
    expect(headline(queue({ now: 2, next: 4, fine: 208 }))).toBe(
      '6 of 214 machines need work, 2 of them now.',
    );
    expect(headline(queue({ now: 1, fine: 213 }))).toBe('1 of 214 machines needs work, now.');
    expect(headline(queue({ fine: 3 }))).toBe('None of 3 machines needs work.');
  });

  it('says of every machine where it stands: the counts add up', () => {
    const items = [
      item({ urgency: 'next', service: 'dust-out' }),
      item({ urgency: 'soon', cause: 'dust' }),
      item({ urgency: 'soon', due: '2026-11-01', byCalendar: true }),
      item({ urgency: 'watch', cause: 'room' }),
      item({ urgency: 'next', setAside: { reason: 'looked', until: '2027-01-01' } }),
      item({ urgency: 'fine' }),
    ];
    const all = queue({}, { items, total: items.length });
    expect(headline(all)).toBe('1 of 6 machines needs work.');
    expect(remarks(all)[0]!.text).toBe(
      '1 is due soon, 1 is overdue by the calendar, 1 is warm and no service helps, 1 is set aside, 1 is fine.',
    );
  });

  it('says where the calendar alone decides, and as of when where readings have ended', () => {
    expect(headline(queue({ next: 200, unknown: 14 }, { neverMeasured: 214 }))).toBe(
      '200 of 214 machines need work by the calendar. Nothing has been measured yet.',
    );
    const ended = queue({ next: 1 }, { asOf: '2026-03-14' });
    expect(headline(ended)).toMatch(/^As of .*2026.*: 1 of 1 machine needs work\.$/);
    expect(remarks(ended)[0]!.text).toMatch(/^Readings ended 258 days ago/);
  });

  it('tells of machines that stopped reporting and of runs that would tell most, and can show them alone', () => {
    const silent = item({ silence: { since: '2026-10-01', days: 57, reporting: 3 } as QueueItem['silence'] });
    const run = { what: 'A run', minutes: 20, why: 'x' } as QueueItem['measure'];
    const telling = item({ measure: run, needsWorkProbability: null });
    const unsure = item({ measure: run, needsWorkProbability: 0.4 });
    expect(matches(unsure, { ...none, only: 'unsure' })).toBe(true);
    expect(minutesOf([{ ...unsure, minutes: 80, measure: { ...run!, minutes: 20 } }])).toBe(20);
    expect(matches(unsure, { ...none, only: 'measure' })).toBe(false);
    const said = remarks(queue({}, { items: [silent, telling, item({})], total: 3, neverMeasured: 9 }));
    expect(said.slice(1)).toEqual([
      { text: '1 machine has stopped reporting.', only: 'silent' },
      { text: '9 were never measured. One run would tell most.', only: 'measure' },
    ]);
    expect(matches(silent, { ...none, only: 'silent' })).toBe(true);
    expect(matches(telling, { ...none, only: 'silent' })).toBe(false);
    expect(matches(telling, { ...none, only: 'measure' })).toBe(true);
  });

  it('puts the rows in the order that is asked for', () => {
    const rows = [
      item({ asset: 'B-10', rank: 1, minutes: 60, due: '2027-01-01' }),
      item({ asset: 'B-9', rank: 2, minutes: 20, actionDate: '2026-12-01' }),
      item({ asset: 'A-1', rank: 3 }),
    ];
    const tags = (order: Parameters<typeof inOrder>[1]) => inOrder(rows, order).map((r) => r.asset);
    expect(tags('pressing')).toEqual(['B-10', 'B-9', 'A-1']);
    expect(tags('tag')).toEqual(['A-1', 'B-9', 'B-10']);
    expect(tags('date')).toEqual(['B-9', 'B-10', 'A-1']);
    expect(tags('minutes')).toEqual(['B-9', 'B-10', 'A-1']);
  });
});
