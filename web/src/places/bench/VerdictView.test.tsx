import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, test } from 'vitest';
import type { Schemas } from '../../api/client';
import { VerdictView } from './VerdictView';

describe('verdict', () => {
  const verdict = {
    outcome: 'improved',
    parts: [
      { part: 'core', outcome: 'no-change', changeKelvin: -0.2, uncertaintyKelvin: 3.3, rawChangeCelsius: 0 },
      {
        part: 'memory',
        outcome: 'improved',
        changeKelvin: -11,
        uncertaintyKelvin: 3.3,
        rawChangeCelsius: -11,
      },
    ],
    headlineMessage: { template: 'Cooler than before: memory by 11 K ± 3.3 K.', values: [] },
    pairs: [
      {
        before: { workload: 'game', fan: { mode: 'fixed', percent: 60 }, settings: 'stock' },
        beforeRuns: 2,
        after: { workload: 'game', fan: { mode: 'fixed', percent: 60 }, settings: 'stock' },
        afterRuns: 1,
        alike: true,
        parts: [
          {
            part: 'memory',
            outcome: 'improved',
            changeKelvin: -11,
            uncertaintyKelvin: 3.3,
            rawChangeCelsius: -9,
            read: { before: 96, after: 87 },
            corrections: [{ what: 'air', kelvin: -2 }],
          },
        ],
      },
    ],
    repeatabilityKelvin: 0.8,
    reasons: [
      {
        code: 'ambient-differs',
        says: { template: 'The air was 25 °C before and 27 °C after.', values: [] },
      },
    ],
    adviceMessages: [{ template: 'Better, and still near its limit: memory.', values: [] }],
  } as unknown as Schemas['VerdictAnswer'];

  test('each part is told with its uncertainty, and why and what now', () => {
    const html = renderToStaticMarkup(<VerdictView verdict={verdict} />);
    expect(html).toContain('core −0.2 K ± 3.3 K, no change; memory −11 K ± 3.3 K, improved');
    expect(html).toContain('<h1>Cooler than before: memory by 11 K ± 3.3 K.</h1>');
    expect(html).toContain('game, fan 60 %, stock: mean of 2 before, 1 after');
    expect(html).toContain('−11 K ± 3.3 K</td><td>96 °C → 87 °C</td><td>air −2 K</td>');
    expect(html).toContain('The air was 25 °C before');
    expect(html).toContain('still near its limit');
  });

  test('a job that won nothing says so plainly', () => {
    const html = renderToStaticMarkup(
      <VerdictView verdict={{ ...verdict, headlineMessage: null, outcome: 'no-change' }} small />,
    );
    expect(html).toContain('<strong>No change.</strong>');
    expect(html).not.toContain('<h1>');
  });
});
