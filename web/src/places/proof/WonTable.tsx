import { plural, t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { PlainTable } from '../../ui/PlainTable';
import { FigureBreakdown } from '../../ui/FigureBreakdown';
import { kelvin, minutes, money } from '../../words/format';
import { Interval } from './Interval';

type Won = Schemas['WorkWon'];
type Spent = Schemas['WorkSpent'];
type Money = Schemas['MoneyWon'];

interface Sums {
  won: Won;
  spent: Spent;
  money: Money;
}

/** How what jobs cost comes about. */
function spentBreakdown(spent: Spent, currency: string): [string, string][] {
  return [
    [t`work, ${minutes(Math.round(spent.minutes))}`, money(spent.work, currency)],
    [t`material`, money(spent.material, currency)],
    [t`downtime`, money(spent.downtime, currency)],
    [t`in all`, money(spent.all, currency)],
  ];
}

/** How the money that jobs have won comes about. */
function moneyBreakdown(m: Money, currency: string): [string, string][] {
  return [
    [t`slower ageing`, money(m.ageing, currency)],
    [t`clock and score`, money(m.performance, currency)],
    [t`quiet`, money(m.noise, currency)],
    [t`crashes`, money(m.crashes, currency)],
    [
      t`in all, from ${plural(m.jobs, { one: '# job compared', other: '# jobs compared' })}`,
      `${money(m.all, currency)} ± ${money(m.expanded, currency)}`,
    ],
  ];
}

/** What groups of jobs have won, one a row, and all of them at the end. */
export function WonTable({
  head,
  rows,
  all,
  currency,
  years,
}: {
  head: string;
  rows: readonly ({ key: string; name: string } & Sums)[];
  all: Sums;
  currency: string;
  /** Over which what is won is counted. */
  years: number;
}) {
  const most = Math.max(1, ...rows.map((r) => Math.abs(r.won.meanKelvin ?? 0) + (r.won.expandedKelvin ?? 0)));
  const least = Math.min(0, ...rows.map((r) => (r.won.meanKelvin ?? 0) - (r.won.expandedKelvin ?? 0)));
  const row = (name: string, { won, spent, money: m }: Sums) => (
    <>
      <td>{name}</td>
      <td className="num">{won.jobs}</td>
      <td className="num">{won.improved}</td>
      <td className="num">{won.noChange}</td>
      <td className="num">{won.worse}</td>
      <td className="num">{won.notCompared}</td>
      <td className="num">
        {won.meanKelvin === null || won.expandedKelvin === null
          ? t`not known`
          : t`${kelvin(won.meanKelvin)} ± ${kelvin(won.expandedKelvin)}`}
      </td>
      <td className="proof-interval">
        {won.meanKelvin !== null && won.expandedKelvin !== null && (
          <Interval mean={won.meanKelvin} within={won.expandedKelvin} from={least} to={most} />
        )}
      </td>
      <td className="num">{won.cameBack}</td>
      <td className="num">{won.brokenParts}</td>
      <td className="num">
        <FigureBreakdown title={t`What it cost`} lines={spentBreakdown(spent, currency)}>
          {money(spent.all, currency)}
        </FigureBreakdown>
      </td>
      <td className="num">
        {m.jobs === 0 ? (
          t`not known`
        ) : (
          <FigureBreakdown
            title={t`What it is worth, ${plural(years, { one: 'in # year', other: 'in # years' })}`}
            lines={moneyBreakdown(m, currency)}
          >
            {`${money(m.all, currency)} ± ${money(m.expanded, currency).replace(` ${currency}`, '')}`}
          </FigureBreakdown>
        )}
      </td>
    </>
  );
  return (
    <div className="scroll-x">
      <PlainTable
        head={
          <>
            <th>{head}</th>
            <th className="num">{t`jobs`}</th>
            <th className="num">{t`cooler`}</th>
            <th className="num">{t`no change`}</th>
            <th className="num">{t`worse`}</th>
            <th className="num">{t`not compared`}</th>
            <th className="num">{t`won, mean`}</th>
            <th aria-hidden="true" className="proof-interval" />
            <th className="num">{t`came back`}</th>
            <th className="num">{t`parts broken`}</th>
            <th className="num">{t`cost`}</th>
            <th className="num">{t`won, in money`}</th>
          </>
        }
      >
        {rows.map((r) => (
          <tr key={r.key}>{row(r.name, r)}</tr>
        ))}
        {rows.length > 1 && <tr className="proof-all">{row(t`all`, all)}</tr>}
      </PlainTable>
    </div>
  );
}
