import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { capital, day, kelvin, partName, useTemperature, withUncertainty } from '../../words/format';
import { CAUSE_WORDS } from '../../ui/marks/CauseMark';
import { FigureBreakdown } from '../../ui/FigureBreakdown';
import { word } from '../../words/word';
import { PlainTable } from '../../ui/PlainTable';

/** The parts of a machine in figures, each opening to its making. */
export function PartsTable({ a }: { a: Schemas['AssessmentAnswer'] }) {
  const { full } = useTemperature();
  return (
    <div className="scroll-x">
      <PlainTable
        head={
          <>
            <th>{t`Part`}</th>
            <th className="num">{a.measuredAt ? day(a.measuredAt.slice(0, 10)) : 'now'}</th>
            <th className="num">{t`limit`}</th>
            <th className="num">{t`hot day, full fan`}</th>
            <th className="num">{t`to the action line`}</th>
            <th className="num">{t`to win`}</th>
            <th>{t`by cause`}</th>
            <th>{t`joint`}</th>
          </>
        }
        className="apart-small"
      >
        {a.parts.map((p) => (
          <tr key={p.part}>
            <td>{capital(partName(p.part))}</td>
            <td className="num">{p.latestCelsius === null ? '–' : full(p.latestCelsius)}</td>
            <td className="num">{full(p.limitCelsius)}</td>
            <td className="num">
              <FigureBreakdown
                title={t`${capital(partName(p.part))} on a hot day`}
                lines={[
                  [t`intake air the zone is planned for`, full(p.hottestCelsius - p.hottestRiseKelvin)],
                  [t`rise at usual heat, fan at full speed`, kelvin(p.hottestRiseKelvin)],
                  ['together', full(p.hottestCelsius)],
                ]}
              >
                {full(p.hottestCelsius)}
              </FigureBreakdown>
            </td>
            <td className="num">
              <FigureBreakdown
                title={t`To the action line`}
                lines={[
                  [t`limit of the part`, full(p.limitCelsius)],
                  [t`less the house’s margin`, kelvin(p.limitCelsius - p.actionLineCelsius)],
                  [t`less the hot day`, full(p.hottestCelsius)],
                  ['left', kelvin(p.marginKelvin)],
                ]}
              >
                {kelvin(p.marginKelvin)}
              </FigureBreakdown>
            </td>
            <td className="num">
              <FigureBreakdown
                title={t`What service could win on the ${partName(p.part)}`}
                lines={[
                  [t`rise with everything fresh`, kelvin(p.baselineRiseKelvin)],
                  ...p.split.map(
                    (s) => [CAUSE_WORDS[s.cause], withUncertainty(s.kelvin, s.uncertaintyKelvin)] as const,
                  ),
                  [t`rise now, added up`, kelvin(p.presentRiseKelvin)],
                  ...(p.hiddenKelvin >= 0.05
                    ? [[t`hidden by a faster fan`, kelvin(-p.hiddenKelvin)] as const]
                    : []),
                  ['unexplained', kelvin(p.unexplainedKelvin)],
                  [
                    t`rise now as measured, room taken out`,
                    kelvin(p.presentRiseKelvin - p.hiddenKelvin + p.unexplainedKelvin),
                  ],
                  [
                    t`to win, ± two standard uncertainties`,
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
                .map((s) => `${word(s.cause)} ${withUncertainty(s.kelvin, s.uncertaintyKelvin)}`)
                .concat(
                  Math.abs(p.unexplainedKelvin) >= 1 ? [t`unexplained ${kelvin(p.unexplainedKelvin)}`] : [],
                )
                .join(', ') || '–'}
            </td>
            <td>{word(p.interface)}</td>
          </tr>
        ))}
      </PlainTable>
    </div>
  );
}
