import type { Schemas } from '../../api/client';
import { capital, day, kelvin, partName, useTemperature, withUncertainty } from '../../words/format';
import { CAUSE_WORDS } from '../../ui/marks/CauseMark';
import { FigureBreakdown } from './FigureBreakdown';

/** The parts of a machine in figures, each opening to its making. */
export function PartsTable({ a }: { a: Schemas['AssessmentAnswer'] }) {
  const { full } = useTemperature();
  return (
    <div className="scroll-x">
      <table className="plain-table" style={{ marginTop: 10 }}>
        <thead>
          <tr>
            <th>Part</th>
            <th className="num">{a.measuredAt ? day(a.measuredAt.slice(0, 10)) : 'now'}</th>
            <th className="num">limit</th>
            <th className="num">hot day, full fan</th>
            <th className="num">to the action line</th>
            <th className="num">to win</th>
            <th>by cause</th>
            <th>joint</th>
          </tr>
        </thead>
        <tbody>
          {a.parts.map((p) => (
            <tr key={p.part}>
              <td>{capital(partName(p.part))}</td>
              <td className="num">{p.latestCelsius === null ? '–' : full(p.latestCelsius)}</td>
              <td className="num">{full(p.limitCelsius)}</td>
              <td className="num">
                <FigureBreakdown
                  title={`${capital(partName(p.part))} on a hot day`}
                  lines={[
                    ['intake air the zone is planned for', full(p.hottestCelsius - p.hottestRiseKelvin)],
                    ['rise at usual heat, fan at full speed', kelvin(p.hottestRiseKelvin)],
                    ['together', full(p.hottestCelsius)],
                  ]}
                >
                  {full(p.hottestCelsius)}
                </FigureBreakdown>
              </td>
              <td className="num">
                <FigureBreakdown
                  title="To the action line"
                  lines={[
                    ['limit of the part', full(p.limitCelsius)],
                    ['less the house’s margin', kelvin(p.limitCelsius - p.actionLineCelsius)],
                    ['less the hot day', full(p.hottestCelsius)],
                    ['left', kelvin(p.marginKelvin)],
                  ]}
                >
                  {kelvin(p.marginKelvin)}
                </FigureBreakdown>
              </td>
              <td className="num">
                <FigureBreakdown
                  title={`What service could win on the ${partName(p.part)}`}
                  lines={[
                    ['rise with everything fresh', kelvin(p.baselineRiseKelvin)],
                    ...p.split.map(
                      (s) => [CAUSE_WORDS[s.cause], withUncertainty(s.kelvin, s.uncertaintyKelvin)] as const,
                    ),
                    ['rise now, added up', kelvin(p.presentRiseKelvin)],
                    ...(p.hiddenKelvin >= 0.05
                      ? [['hidden by a faster fan', kelvin(-p.hiddenKelvin)] as const]
                      : []),
                    ['unexplained', kelvin(p.unexplainedKelvin)],
                    [
                      'rise now as measured, room taken out',
                      kelvin(p.presentRiseKelvin - p.hiddenKelvin + p.unexplainedKelvin),
                    ],
                    [
                      'to win, ± two standard uncertainties',
                      `${kelvin(p.driftKelvin)} ± ${kelvin(p.uncertaintyKelvin)}`,
                    ],
                  ]}
                >
                  {kelvin(p.driftKelvin)} ± {kelvin(p.uncertaintyKelvin)}
                </FigureBreakdown>
              </td>
              <td style={{ minWidth: 170 }}>
                {p.split
                  .filter((s) => Math.abs(s.kelvin) >= 0.3)
                  .map((s) => `${s.cause} ${withUncertainty(s.kelvin, s.uncertaintyKelvin)}`)
                  .concat(
                    Math.abs(p.unexplainedKelvin) >= 1 ? [`unexplained ${kelvin(p.unexplainedKelvin)}`] : [],
                  )
                  .join(', ') || '–'}
              </td>
              <td>{p.interface}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
