import { describe, expect, it } from 'vitest';
import { day, inUnit, kelvin, minutes, parseDay, takenWords } from './format';

describe('formats', () => {
  it('writes kelvins with a tenth while they are few', () => {
    expect(kelvin(3.27)).toBe('3.3 K');
    expect(kelvin(-11.4)).toBe('−11 K');
  });

  it('writes minutes as people say them', () => {
    expect([35, 60, 165].map(minutes)).toEqual(['35 min', '1 h', '2 h 45']);
  });

  it('reads a day as that day wherever the reader is', () => {
    expect(parseDay('2026-03-01').getDate()).toBe(1);
  });

  it('names the year only where it could be mistaken', () => {
    const now = new Date(2026, 10, 25);
    expect(day('2027-01-19', now)).not.toContain('2027');
    expect(day('2027-11-19', now)).toContain('2027');
  });

  it('says of a file that was there already that it was', () => {
    expect(takenWords(0, 12, 'line')).toBe('Already known: 12 lines. Nothing changed.');
    expect(takenWords(1, 12, 'line')).toBe('1 line imported, 12 already known.');
    expect(takenWords(0, 0, 'line')).toBe('0 lines imported, 0 already known.');
  });

  it('turns degrees but not differences into Fahrenheit', () => {
    expect(inUnit(95, 'F')).toBeCloseTo(203);
    expect(inUnit(95, 'C')).toBe(95);
  });
});
