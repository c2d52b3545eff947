import { describe, expect, it } from 'vitest';
import { spread } from './spread';

describe('labels beside curves', () => {
  it('stand at their values where there is room', () => {
    expect([
      ...spread([
        { part: 'core', at: 40 },
        { part: 'memory', at: 10 },
      ]),
    ]).toEqual([
      ['memory', 10],
      ['core', 40],
    ]);
  });
  it('never cover each other, and keep their order', () => {
    const placed = spread([
      { part: 'a', at: 30 },
      { part: 'b', at: 32 },
      { part: 'c', at: 33 },
    ]);
    expect([...placed.values()]).toEqual([30, 44, 58]);
  });
});
