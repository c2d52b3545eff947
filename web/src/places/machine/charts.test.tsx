import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, test } from 'vitest';
import type { Schemas } from '../../api/client';
import { DriftChart } from './DriftChart';
import { LevelsTable } from './LevelsTable';
import { ResidualChart } from './ResidualChart';

const DAY = 86_400_000;
const START = Date.UTC(2026, 0, 1);
const FRAME = { tag: 'GC-1', asOf: '2026-10-28', span: null, onSpan: () => undefined };

/** A part with a year of points around a level model. */
const part = (left: (i: number) => number): Schemas['PartAnswer'] =>
  ({
    part: 'core',
    limitCelsius: 90,
    latestCelsius: 70,
    baselineRiseKelvin: 40,
    presentRiseKelvin: 44,
    paceKelvinPerDay: 0.02,
    driftKelvin: 4,
    marginKelvin: 6,
    actionLineCelsius: 85,
    trend: {
      kelvinPerDay: 0.02,
      low: 0.01,
      high: 0.03,
      pValue: 0.001,
      rising: true,
      from: '2026-01-01T00:00:00Z',
    },
    history: Array.from({ length: 60 }, (_, i) => ({
      at: new Date(START + i * 5 * DAY).toISOString(),
      observed: 44 + 2 + left(i),
      room: 2,
      model: 44,
    })),
  }) as unknown as Schemas['PartAnswer'];

const wiggle = (i: number) => (i % 2 === 0 ? 0.5 : -0.5);
const service = (date: string, voidedReason: string | null = null) =>
  ({ id: 1, date, level: 'dust-out', voidedReason, jobId: null }) as Schemas['ServiceEntry'];
const step = (partName: string): Schemas['StepChange'] => ({
  date: '2026-05-01',
  part: partName,
  kelvin: 4,
  kind: 'mount',
});

describe('scatter around the fitted line', () => {
  const draw = (
    p: Schemas['PartAnswer'],
    steps: Schemas['StepChange'][] = [],
    services = [service('2026-04-01')],
  ) => renderToStaticMarkup(<ResidualChart {...FRAME} part={p} services={services} steps={steps} />);

  test('a model that is right leaves a band of its scatter and nothing beyond', () => {
    // Half a kelvin either way: MAD 0.5, two standard deviations 1.5 K (Hampel 1974).
    expect(draw(part(wiggle))).toContain('usually within 1.5 K, 0 of 60 points beyond');
  });

  test('a point that nobody has explained stands out', () => {
    const svg = draw(part((i) => (i === 30 ? 6 : wiggle(i))));
    expect(svg).toContain('1 of 60 points beyond');
    expect(svg.match(/r="3"/g)).toHaveLength(1);
  });

  test('steps of this part and standing services are drawn, others are not', () => {
    expect(draw(part(wiggle), [step('core')])).toContain('4 K step');
    expect(draw(part(wiggle), [step('memory')])).not.toContain('4 K step');
    const lines = (svg: string) => (svg.match(/stroke="var\(--ink\)"/g) ?? []).length;
    const services = [service('2026-04-01'), service('2026-06-01', 'other card')];
    expect(lines(draw(part(wiggle), [], services))).toBe(1);
  });

  test('with hardly any points it draws nothing', () => {
    const few = { ...part(wiggle), history: part(wiggle).history.slice(0, 4) };
    expect(draw(few)).toBe('');
  });
});

describe('drift chart', () => {
  test('it says in words where it came from and where it is, and needs two points', () => {
    const svg = renderToStaticMarkup(<DriftChart {...FRAME} part={part(wiggle)} services={[]} />);
    expect(svg).toContain('fresh 40 K, now 44 K');
    const one = { ...part(wiggle), history: part(wiggle).history.slice(0, 1) };
    expect(renderToStaticMarkup(<DriftChart {...FRAME} part={one} services={[]} />)).toContain(
      'One point cannot be drawn',
    );
  });

  test('the axis says what it is, and action line and limit stand where the hottest day would reach them', () => {
    const draw = (margin: number) =>
      renderToStaticMarkup(
        <DriftChart {...FRAME} part={{ ...part(wiggle), marginKelvin: margin }} services={[]} />,
      );
    expect(draw(3)).toContain('K above the air');
    expect(draw(3)).toMatch(/>action line<.*>limit</);
    // Far away they are told: drawn, they would press all else together.
    expect(draw(30)).not.toContain('>action line<');
    expect(draw(30)).toContain('Action line: 30 K above. Limit: 35 K above.');
  });

  test('a service that was struck out is struck through on the chart too', () => {
    const svg = renderToStaticMarkup(
      <DriftChart {...FRAME} part={part(wiggle)} services={[service('2026-04-01', 'other card')]} />,
    );
    expect(svg).toContain('line-through');
  });
});

describe('levels', () => {
  const worth = (net: number) => ({
    value: { net } as Schemas['ValueAnswer'],
    netLow: net - 10,
    netHigh: net + 10,
    perHour: net,
  });
  const levels = [
    {
      level: 'dust-out',
      part: 'core',
      kelvin: 0.2,
      minutes: 35,
      timedJobs: 4,
      provenShare: 0.8,
      provenJobs: 3,
      ...worth(-21),
    },
    {
      level: 'repaste',
      part: 'hotspot',
      kelvin: 9.4,
      minutes: 60,
      timedJobs: 0,
      provenShare: 1,
      provenJobs: 0,
      ...worth(88),
    },
  ] as const;

  test('the advised level is marked in words, not by weight alone', () => {
    const html = renderToStaticMarkup(
      <LevelsTable levels={levels} currency="crowns" years={2} advised="repaste" />,
    );
    expect(html).toContain('repaste<span class="visually-hidden"> (advised)</span>');
    expect(html).toContain('9.4 K');
    expect(html).toContain('hot spot');
    expect(html).not.toContain('>core<');
    // What three jobs have proven is told; nothing is said where none has.
    expect(html).toContain('× 0.80 (3 jobs)');
    expect(html).not.toContain('× 1.00');
    expect(html).toContain('35 min<span class="quiet small levels-besides">4 jobs');
    expect(html).toContain('−21 crowns');
    expect(html).toContain('88 crowns');
    expect(html).toContain('78 to 98');
    // Without a win there is nothing to be unsure of.
    expect(html).not.toContain('−31 to −11');
    expect(html).toContain('worth in 2 years');
  });

  test('without judged parts there is no table', () => {
    expect(renderToStaticMarkup(<LevelsTable levels={[]} currency="EUR" years={1} advised={null} />)).toBe(
      '',
    );
  });
});
