import { plural, t } from '@lingui/core/macro';
import type { ReactNode } from 'react';
import type { Schemas } from '../../api/client';
import { kelvin, minutes, money, partName, whole } from '../../words/format';
import { FigureBreakdown } from '../../ui/FigureBreakdown';
import { valueBreakdown } from '../../words/valueBreakdown';
import { levelName } from '../../words/work';
import { PlainTable } from '../../ui/PlainTable';

/**
 * What each level of service would win, the time it takes, and what that is worth over the years in which it has to pay: opening further has to
 * earn its minutes. Where at least two proven jobs of the model speak, with the share of its prediction that the level has won.
 */
export function LevelsTable({
  levels,
  currency,
  years,
  advised,
}: {
  levels: readonly Schemas['LevelAnswer'][];
  currency: string;
  years: number;
  advised: Schemas['ServiceLevel'] | null;
}) {
  if (levels.length === 0) return null;
  return (
    <section aria-label={t`What each level would win`} className="apart">
      <div className="section-head">
        <h2>{t`What each level would win`}</h2>
      </div>
      <PlainTable
        head={
          <>
            <th>{t`level`}</th>
            <th className="num">{t`wins`}</th>
            <th className="num">{t`takes`}</th>
            <th className="num">{t`worth in ${plural(years, { one: 'a year', other: '# years' })}`}</th>
          </>
        }
      >
        {levels.map((l) => (
          <tr key={l.level} className={l.level === advised ? 'heavy' : undefined}>
            <td className="nowrap">
              {levelName(l.level)}
              {l.level === advised && <span className="visually-hidden"> {t`(advised)`}</span>}
            </td>
            <td className="num">
              {kelvin(l.kelvin)}
              <Besides>
                {l.kelvin >= 0.5 && partName(l.part)}
                {l.provenJobs >= 2 &&
                  ` × ${l.provenShare.toFixed(2)} (${plural(l.provenJobs, { one: '# job', other: '# jobs' })})`}
              </Besides>
            </td>
            <td className="num">
              {minutes(l.minutes)}
              {l.timedJobs >= 2 && (
                <Besides>{plural(l.timedJobs, { one: '# job', other: '# jobs' })}</Besides>
              )}
            </td>
            <td className="num">
              <FigureBreakdown
                title={t`What the ${levelName(l.level)} is worth`}
                lines={valueBreakdown(l.value, currency)}
              >
                {money(l.value.net, currency)}
              </FigureBreakdown>
              {l.kelvin >= 0.5 && <Besides>{t`${whole(l.netLow)} to ${whole(l.netHigh)}`}</Besides>}
            </td>
          </tr>
        ))}
      </PlainTable>
    </section>
  );
}

/** What a number rests on, small beneath it. */
function Besides({ children }: { children: ReactNode }) {
  return <span className="quiet small levels-besides">{children}</span>;
}
