import { describe, expect, it } from 'vitest';
import { sidesWords } from './sidesWords';

const none = {
  noiseJobs: 0,
  meanDecibel: null,
  performanceJobs: 0,
  meanPerformance: null,
  endedThrottling: 0,
  endedFailing: 0,
};

describe('what work won besides kelvins', () => {
  it('says nothing where nothing was measured', () => {
    expect(sidesWords(none)).toBe('');
  });

  it('says better and worse as they are, and over how many jobs', () => {
    expect(sidesWords({ ...none, noiseJobs: 3, meanDecibel: -2.5, endedThrottling: 1 })).toBe(
      'Besides: 2.5 dB quieter in the mean of 3 jobs; 1 machine no longer throttling.',
    );
    expect(
      sidesWords({ ...none, noiseJobs: 1, meanDecibel: 1, performanceJobs: 2, meanPerformance: -0.012 }),
    ).toBe(
      'Besides: 1 dB louder in the mean of 1 job; 1.2 % slower in the mean of 2 jobs whose clock or score moved.',
    );
  });
});
