import { describe, expect, it } from 'vitest';
import {
  boards,
  daysLater,
  halves,
  hoursShown,
  load,
  moved,
  windowsOn,
  type Person,
  type Plan,
  type PlannedJob,
} from './board';
import { codeFor } from './codeFor';
import { hoursAWeek, weekWords } from './weekdays';

const job = (id: string, from: number, minutes: number, day = '2026-12-07', person = 'mira'): PlannedJob => ({
  id,
  kind: 'service',
  title: '',
  zone: 'READ',
  zoneName: 'Reading room',
  steps: [],
  person,
  start: '',
  day,
  from,
  minutes,
  setup: 10,
  locked: false,
  dueBy: null,
  late: false,
  conflict: null,
  bench: null,
  campaign: null,
  help: null,
});

const plan = (jobs: PlannedJob[], days = 3): Plan =>
  ({
    start: '2026-12-07',
    days,
    jobs,
    shifts: [
      { person: 'mira', day: '2026-12-07', from: 8 * 60, to: 16 * 60 },
      { person: 'tomas', day: '2026-12-08', from: 22 * 60, to: 30 * 60 },
    ],
  }) as unknown as Plan;

const people = [
  { code: 'mira', name: 'Mira', absences: [{ id: 1, from: '2026-12-08', to: '2026-12-08', reason: 'ill' }] },
  { code: 'tomas', name: 'Tomas', absences: [] },
] as unknown as Person[];

describe('the board of a plan', () => {
  it('has a day for each of the plan, with everybody on it', () => {
    const closed = [
      { name: 'Hall', open: [], closed: [{ from: '2026-12-08', to: '2026-12-09', reason: 'exams' }] },
    ];
    const days = boards(plan([job('a', 540, 30)]), people, closed as never);
    expect(days.map((d) => d.isWorked)).toEqual([true, true, false]);
    expect(days[0]!.tracks[0]!.jobs).toHaveLength(1);
    expect(days[1]!.tracks.map((track) => track.away)).toEqual(['ill', null]);
    expect(days.map((d) => d.closed.length)).toEqual([0, 1, 1]);
    expect(load(days[0]!.tracks[0]!)).toEqual({ work: 40, shift: 480 });
    expect(daysLater('2026-12-31', 1)).toBe('2027-01-01');
  });

  it('shows the hours of all shifts and jobs, past midnight too', () => {
    expect(hoursShown(plan([job('a', 475, 30)]))).toEqual({ from: 7 * 60, to: 30 * 60 });
    expect(hoursShown({ ...plan([]), shifts: [] })).toEqual({ from: 8 * 60, to: 16 * 60 });
  });

  it('lets short jobs take turns in the halves of a track', () => {
    const jobs = [job('a', 480, 10), job('b', 490, 10), job('c', 500, 60), job('d', 560, 10)];
    const half = halves(jobs, { from: 480, to: 960 });
    expect(jobs.map((j) => half.get(j.id))).toEqual(['upper', 'lower', undefined, 'upper']);
  });

  it('moves a job by keys within the plan', () => {
    const spot = { person: 'mira', day: '2026-12-07', from: 480 };
    const by = (key: string) => moved(spot, key, plan([]), people);
    expect(by('ArrowRight')).toEqual({ ...spot, from: 485 });
    expect(by('ArrowDown')).toEqual({ ...spot, person: 'tomas' });
    expect(by('ArrowUp')).toBeNull();
    expect(by('PageDown')).toEqual({ ...spot, day: '2026-12-08' });
    expect(by('PageUp')).toBeNull();
    expect(by('x')).toBeNull();
  });

  it('knows when the machines of a zone may be down', () => {
    const zone = {
      open: [{ day: 'monday', from: '22:00', to: '06:00' }],
      closed: [{ from: '2026-12-14', to: '2026-12-14', reason: '' }],
    } as never;
    expect(windowsOn(zone, '2026-12-07')).toEqual([{ from: 22 * 60, to: 30 * 60 }]);
    expect(windowsOn(zone, '2026-12-08')).toEqual([]);
    expect(windowsOn(zone, '2026-12-14')).toEqual([]);
    expect(windowsOn(undefined, '2026-12-07')).toBeNull();
  });
});

describe('people in words', () => {
  it('make codes that stand in addresses', () => {
    expect(codeFor('Inês de Faro', [])).toBe('ines-de-faro');
    expect(codeFor('Mira', ['mira', 'mira-2'])).toBe('mira-3');
    expect(codeFor('美', [])).toBe('person');
  });

  it('say days with the same hours together', () => {
    const at = (day: string, from = '08:00', to = '16:00') => ({ day, from, to }) as never;
    const week = [at('monday'), at('tuesday'), at('wednesday'), at('saturday', '22:00', '06:00')];
    expect(weekWords(week)).toMatch(/^Mon to Wed .*; Sat /);
    expect(hoursAWeek(week)).toBe('32 hours a week');
  });
});
