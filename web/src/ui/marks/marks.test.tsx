import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, test } from 'vitest';
import type { Cause, Schemas } from '../../api/client';
import { heat } from '../../theme/heat';
import { CAUSE_WORDS, CauseMark } from './CauseMark';
import { HeadroomStrip } from './HeadroomStrip';
import { HeatPath } from './HeatPath';

const PART = {
  part: 'memory',
  interface: 'pad',
  limitCelsius: 105,
  latestCelsius: 89,
  airCelsius: 25,
  split: [{ cause: 'pads', kelvin: 12 }],
  path: [
    { layer: 'joint', nowKelvin: 48, freshKelvin: 36 },
    { layer: 'fins', nowKelvin: 16, freshKelvin: 16 },
    { layer: 'fan', nowKelvin: 0, freshKelvin: 0 },
  ],
} as unknown as Schemas['PartAnswer'];

/** Attributes of all elements of a kind, as numbers. */
const numbers = (svg: string, element: string, attribute: string) =>
  [...svg.matchAll(new RegExp(`<${element}[^>]* ${attribute}="([-0-9.]+)"`, 'g'))].map((m) => Number(m[1]));

describe('heat path', () => {
  test('a layer is as thick as the kelvins it costs, and the sick one shows what it has gained', () => {
    const [joint, gained, fins] = numbers(
      renderToStaticMarkup(<HeatPath part={PART} measured={null} />),
      'rect',
      'height',
    ) as [number, number, number];
    expect(joint / fins).toBeCloseTo(48 / 16, 6);
    expect(gained / joint).toBeCloseTo(12 / 48, 6);
  });

  test('it says in words what it draws', () => {
    const svg = renderToStaticMarkup(<HeatPath part={PART} measured={null} />);
    expect(svg).toContain(
      'Memory 89 °C: Chip and pads 48.0 K, fresh 36.0 K; Plate and fins 16.0 K, fresh 16.0 K',
    );
    expect(svg).toContain('12 K more than fresh');
    expect(svg).toContain('25 °C at the intake');
  });

  test('all that stands between air and part is told, and what nobody measured is said so', () => {
    const warm = {
      ...PART,
      airCelsius: null,
      path: [
        ...PART.path,
        { layer: 'room', nowKelvin: 5, freshKelvin: 0 },
        { layer: 'unexplained', nowKelvin: -1.2, freshKelvin: 0 },
      ],
    } as typeof PART;
    const svg = renderToStaticMarkup(<HeatPath part={warm} measured="run of job 3" />);
    expect(svg).toContain('The room');
    expect(svg).toContain('−1.2 / 0.0');
    expect(svg).toContain('not measured');
    expect(svg).toContain('run of job 3');
    expect(renderToStaticMarkup(<HeatPath part={PART} measured={null} />)).not.toContain('The room');
  });

  test('a step of the mount is named as one', () => {
    const mounted = { ...PART, interface: 'paste', split: [{ cause: 'mount', kelvin: 12 }] } as typeof PART;
    expect(renderToStaticMarkup(<HeatPath part={mounted} measured={null} />)).toContain(
      '12 K more than fresh: mount',
    );
  });
});

describe('headroom strip', () => {
  const strip: Schemas['Strip'] = {
    part: 'core',
    ambient: 25,
    fresh: 68,
    now: 79,
    heading: 87,
    line: 85,
    limit: 90,
  };

  test('everything stands on one scale, in the order of its degrees', () => {
    const svg = renderToStaticMarkup(<HeadroomStrip strip={strip} />);
    const xs = [...svg.matchAll(/<path d="M([-0-9.]+) /g)].map((m) => Number(m[1]));
    const dot = numbers(svg, 'circle', 'cx')[0]!;
    const [heading, fresh, line] = xs as [number, number, number];
    expect(heading).toBeCloseTo(dot, 6);
    expect(fresh).toBeLessThan(dot);
    expect(line).toBeGreaterThan(dot);
    const perKelvin = (dot - fresh) / (79 - 68);
    expect((line - dot) / (85 - 79)).toBeCloseTo(perKelvin, 6);
  });

  test('it says in words what it draws', () => {
    expect(renderToStaticMarkup(<HeadroomStrip strip={strip} />)).toContain(
      'core: air 25 °C, fresh 68 °C, now 79 °C, 87 °C on a hot day, action line 85 °C, limit 90 °C',
    );
  });

  test('a machine that has lost nothing glows nowhere', () => {
    const fine = renderToStaticMarkup(<HeadroomStrip strip={{ ...strip, now: 68, heading: 68 }} />);
    expect(fine.match(new RegExp(heat(0, 90 - 68).replaceAll(/[()]/g, '\\$&'), 'g'))).toHaveLength(1);
    expect(fine).not.toContain('stroke-dasharray="3 3"');
  });

  test('what is off the scale stays on the paper', () => {
    const wild = renderToStaticMarkup(
      <HeadroomStrip strip={{ ...strip, now: 400, ambient: -60 }} width={300} />,
    );
    for (const x of [...numbers(wild, 'circle', 'cx'), ...numbers(wild, 'rect', 'x')]) {
      expect(x).toBeGreaterThanOrEqual(-2);
      expect(x).toBeLessThanOrEqual(300);
    }
  });
});

describe('heat', () => {
  test('it glows the more was lost, from grey to bright', () => {
    expect(heat(-3)).toBe(heat(2));
    expect(heat(40)).toBe('rgb(246 183 60)');
    const red = (lost: number) => Number(/\d+/.exec(heat(lost))![0]);
    const ramp = [3, 5, 7, 9, 11, 13, 15].map(red);
    expect(ramp).toEqual([...ramp].sort((a, b) => a - b));
  });

  test('no two neighbours of the ramp jump', () => {
    const parts = (lost: number) => heat(lost).match(/\d+/g)!.map(Number);
    for (let lost = 0; lost < 17; lost += 0.1)
      for (const c of [0, 1, 2])
        expect(Math.abs(parts(lost)[c]! - parts(lost + 0.1)[c]!)).toBeLessThanOrEqual(6);
  });
});

describe('cause marks', () => {
  test('every cause has a word and a mark of its own: never colour alone', () => {
    const causes = Object.keys(CAUSE_WORDS) as Cause[];
    expect(new Set(Object.values(CAUSE_WORDS)).size).toBe(causes.length);
    const drawn = causes.map((cause) => renderToStaticMarkup(<CauseMark cause={cause} />));
    expect(new Set(drawn).size).toBe(causes.length);
    expect(drawn.every((svg) => svg.includes('aria-hidden="true"'))).toBe(true);
  });
});
