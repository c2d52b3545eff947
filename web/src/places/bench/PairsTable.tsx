import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { capital, kelvin, partName, useTemperature } from '../../words/format';
import { labelOf } from './partners';
import { PlainTable } from '../../ui/PlainTable';
import { Fragment } from 'react';

type Verdict = Schemas['VerdictAnswer'];
type Part = Schemas['PartVerdict'];

const CORRECTIONS: Record<Schemas['CorrectionFor'], string> = {
  air: t`air`,
  power: t`heat`,
  fan: t`fan speed`,
};

/**
 * From the temperatures as read to the change, pair by pair and part by part: what was read, what the difference is
 * corrected for, and what is left.
 */
export function PairsTable({ verdict }: { verdict: Verdict }) {
  const { exact } = useTemperature();
  const pairs = verdict.pairs.filter((p) => p.parts.length > 0);
  if (pairs.length === 0) return null;
  return (
    <>
      <h2>{t`Run by run`}</h2>
      <PlainTable
        head={
          <>
            <th scope="col">{t`Part`}</th>
            <th scope="col">{t`Change`}</th>
            <th scope="col">{t`Read before → after`}</th>
            <th scope="col">{t`Corrected for`}</th>
          </>
        }
      >
        {pairs.map((pair, i) => (
          <Fragment key={i}>
            <tr>
              <th colSpan={4} scope="rowgroup">
                {labelOf(pair.before)}
                {!pair.alike && ` → ${labelOf(pair.after)}`}
                {times(pair)}
              </th>
            </tr>
            {pair.parts.map((p) => (
              <tr key={p.part} className="figures">
                <td>{capital(partName(p.part))}</td>
                <td>
                  {kelvin(p.changeKelvin)} ± {kelvin(p.uncertaintyKelvin)}
                </td>
                <td>{p.read ? `${exact(p.read.before)} → ${exact(p.read.after)}` : '–'}</td>
                <td>{taken(p)}</td>
              </tr>
            ))}
          </Fragment>
        ))}
      </PlainTable>
      {verdict.repeatabilityKelvin !== null && (
        <p className="quiet small">
          {t`Repeated runs at this bench differ by ${kelvin(verdict.repeatabilityKelvin)} (standard deviation, together with the usual 1 K).`}
        </p>
      )}
    </>
  );
}

const times = (pair: Schemas['RunPairAnswer']) =>
  pair.beforeRuns > 1 || pair.afterRuns > 1
    ? t`: mean of ${String(pair.beforeRuns)} before, ${String(pair.afterRuns)} after`
    : '';

const taken = ({ corrections = [] }: Part) =>
  corrections.length === 0
    ? t`nothing`
    : corrections
        .map((c) => `${CORRECTIONS[c.what]} ${c.kelvin > 0 ? '+' : ''}${kelvin(c.kelvin)}`)
        .join(', ');
