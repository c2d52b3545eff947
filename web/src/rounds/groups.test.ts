import { describe, expect, it } from 'vitest';
import type { QueueItem, Schemas } from '../api/client';
import { group, headline, matches, minutesOf } from './groups';

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
    minutes: null,
    setAside: null,
    ...part,
  }) as QueueItem;

const none = { text: '', site: null, zone: null, kind: null, urgency: null };

describe('Rounds', () => {
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
    );
    expect(groups.map((g) => g.key)).toEqual(['now', 'watch', 'elsewhere', 'aside', 'fine']);
    expect(groups.filter((g) => g.calm).map((g) => g.key)).toEqual(['aside', 'fine']);
  });

  it('groups by zone in the order of the queue', () => {
    const groups = group([item({ zone: 'B', zoneName: 'Row B' }), item({}), item({ zone: 'B' })], 'zone');
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

  it('says how many deserve a screwdriver', () => {
    const queue = (counts: Record<string, number>, total = 214) =>
      ({ counts, total }) as unknown as Schemas['QueueAnswer'];
    expect(headline(queue({ now: 2, next: 4 }))).toBe(
      '6 of 214 machines deserve a screwdriver, 2 of them now.',
    );
    expect(headline(queue({ now: 1 }))).toBe('1 of 214 machines deserves a screwdriver, now.');
    expect(headline(queue({ fine: 3 }))).toBe('None of 214 machines deserves a screwdriver today.');
  });
});
