import { describe, expect, it } from 'vitest';
import { settingValue, SETTINGS, targetName } from './rules';

describe('what a rule is for', () => {
  it.each([
    ['zone', 'Z2', 'Reading room', 'Reading room'],
    ['kind', 'laptop', 'laptop', 'Laptops'],
    ['zone-kind', 'Z2/graphics-card', 'Reading room', 'Reading room: Graphics cards'],
    ['zone-kind', 'GONE/laptop', null, 'GONE/laptop: Laptops'],
    ['machine', 'PC-1', null, 'PC-1'],
  ])('%s %s is called what people call it', (scope, key, name, called) => {
    expect(targetName({ scope, key, name })).toBe(called);
  });
});

describe('what a rule sets', () => {
  const field = (name: string) => SETTINGS.find((s) => s.name === name)!;

  it('is said in words', () => {
    expect(settingValue(field('downHours'), 'weekends', 'EUR')).toBe('on weekends');
    expect(settingValue(field('twoPeople'), true, 'EUR')).toBe('yes');
    expect(settingValue(field('fanMonths'), 0, 'EUR')).toBe('never');
    expect(settingValue(field('fanMonths'), 60, 'EUR')).toBe('60 months');
    expect(settingValue(field('alcohol'), 'of a later version', 'EUR')).toBe('–');
  });
});
