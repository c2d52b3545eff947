import { describe, expect, it } from 'vitest';
import { boards, jobsOn, load, type Person, type Plan, type PlannedJob } from './board';
import { costLines, loadLines, shiftLines, workLines } from './making';
import { planCsv } from './planCsv';

const person = (code: string): Person => ({
  code,
  name: code.toUpperCase(),
  skills: [],
  sites: [],
  hours: [],
  absences: [],
});

const job = (id: string, more: Partial<PlannedJob>): PlannedJob => ({
  id,
  kind: 'service',
  title: '',
  zone: 'Z',
  zoneName: 'Zone',
  steps: [{ asset: id, level: 'dust-out', minutes: 40, cause: 'dust', kelvin: 3 }],
  person: 'mira',
  start: '2026-12-07T08:00:00Z',
  day: '2026-12-07',
  from: 495,
  minutes: 40,
  setup: 15,
  locked: false,
  dueBy: null,
  late: false,
  conflict: null,
  bench: null,
  campaign: null,
  help: null,
  ...more,
});

const two = job('SV-1', { help: { person: 'tomas', day: '2026-12-07', from: 555, setup: 20 } });
const alone = job('PC-1', { from: 600, setup: 0 });

const plan = {
  id: 1,
  start: '2026-12-07',
  days: 1,
  cost: 12.5,
  costOf: { late: 10, leftOut: 1.5, setup: 0.35, moved: 0.65 },
  bound: 12,
  workMinutes: 155,
  handMinutes: 960,
  jobs: [alone, two],
  leftOut: [],
  shifts: [
    { person: 'mira', day: '2026-12-07', from: 480, to: 960 },
    { person: 'tomas', day: '2026-12-07', from: 540, to: 1020 },
  ],
  moved: [],
} as unknown as Plan;

const people = [person('mira'), person('tomas')];
const totals = (lines: readonly (readonly [string, string])[]) => Object.fromEntries(lines);

describe('work for two', () => {
  it('stands in the day of both, by the clock of each, in order', () => {
    expect(jobsOn(plan, 'mira', '2026-12-07').map((j) => [j.id, j.from, j.helps])).toEqual([
      ['SV-1', 495, undefined],
      ['PC-1', 600, undefined],
    ]);
    expect(jobsOn(plan, 'tomas', '2026-12-07').map((j) => [j.id, j.from, j.setup, j.helps])).toEqual([
      ['SV-1', 555, 20, true],
    ]);
    expect(jobsOn(plan, 'tomas', '2026-12-08')).toEqual([]);
    expect(jobsOn(plan, 'nobody', '2026-12-07')).toEqual([]);
  });

  it('counts in the load of both', () => {
    const [day] = boards(plan, people, []);
    expect(day!.tracks.map(load)).toEqual([
      { work: 95, shift: 480 },
      { work: 60, shift: 480 },
    ]);
  });

  it('names who helps in the table', () => {
    const lines = planCsv(plan, people).split('\r\n');
    expect(lines[0]).toContain('person,with,zone');
    expect(lines.find((l) => l.includes('SV-1'))).toContain('MIRA,TOMAS,');
    expect(lines.find((l) => l.includes('PC-1'))).toContain('MIRA,,');
  });
});

describe('the making of a plan’s figures', () => {
  it('adds up to the minutes of work: jobs, helpers, set-ups', () => {
    expect(workLines(plan).map(([, value]) => value)).toEqual(['1 h 20', '40 min', '35 min', '2 h 35']);
  });

  it('adds up to the shifts, person by person', () => {
    expect(totals(shiftLines(plan, people))).toMatchObject({ MIRA: '8 h', TOMAS: '8 h' });
  });

  it('tells the cost by its parts, and what every plan costs at least', () => {
    const values = costLines(plan).map(([, value]) => Number(value));
    expect(values.slice(0, 4).reduce((a, b) => a + b, 0)).toBeCloseTo(values[4]!, 9);
    expect(values[5]).toBe(12);
    expect(costLines({ ...plan, bound: null }).at(-1)![1]).toBe('not known');
  });

  it('tells a day job by job', () => {
    const [day] = boards(plan, people, []);
    const lines = loadLines(day!.tracks[0]!).map(([what]) => what);
    // The hour is written as the reader's language has it.
    expect(lines.map((what) => what.split(' ').at(-1))).toEqual(['SV-1', 'PC-1', 'all', 'shift']);
  });
});
