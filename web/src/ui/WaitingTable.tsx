import { plural, t } from '@lingui/core/macro';
import type { Schemas } from '../api/client';
import { useWaiting } from '../api/queries';
import { day, kelvin, money, tenths, whole } from '../words/format';
import { valueBreakdown } from '../words/valueBreakdown';
import { FigureBreakdown } from './FigureBreakdown';
import { PlainTable } from './PlainTable';

type Option = Schemas['WaitingOption'];

/**
 * What it means to do the advised work now, at the next window, as planned, in a month or never: kelvins, the risk of passing
 * the action line, money. Nothing where no work is advised or nothing was measured.
 * @param judgedAt When the fleet was judged: another judgement, other numbers.
 */
export function WaitingTable({
  of,
  name,
  judgedAt,
}: {
  of: 'assets' | 'zones';
  name: string;
  judgedAt: string | null;
}) {
  const answer = useWaiting(of, name, judgedAt);
  if (!answer.data || answer.data.options.length === 0) return null;
  const { machines, currency, years, options } = answer.data;
  const one = of === 'assets';
  return (
    <section aria-label={t`What waiting means`} className="apart">
      <div className="section-head">
        <h2>{t`What waiting means`}</h2>
      </div>
      {!one && (
        <p className="small">
          {t`For the ${plural(machines, { one: '# machine', other: '# machines' })} here for which work is advised and something was measured.`}
        </p>
      )}
      <PlainTable
        head={
          <>
            <th>{t`done`}</th>
            {one && <th className="num">{t`warmer by then`}</th>}
            <th className="num">{one ? t`past its line by then` : t`past their line`}</th>
            <th className="num">{t`worth in ${plural(years, { one: 'a year', other: '# years' })}`}</th>
            <th className="num">{t`waiting costs`}</th>
          </>
        }
      >
        {options.map((option) => (
          <tr key={option.when}>
            <td>{whenWords(option, machines)}</td>
            {one && <td className="num">{option.when === 'now' ? '' : `+${kelvin(option.moreKelvin)}`}</td>}
            <td className="num">{one ? t`${whole(option.pastLine * 100)} %` : tenths(option.pastLine)}</td>
            <td className="num">
              <FigureBreakdown
                title={t`What the work is worth`}
                lines={valueBreakdown(option.value, currency)}
              >
                {money(option.value.net, currency)}
              </FigureBreakdown>
            </td>
            <td className="num">{option.when === 'now' ? '' : money(option.costs, currency)}</td>
          </tr>
        ))}
      </PlainTable>
      <p className="small quiet">
        {t`Warmer by the present pace of wear; the line at the zone’s design air with the fan at full speed. Less than nothing: waiting is worth more than working now.`}
      </p>
    </section>
  );
}

function whenWords({ when, day: on, machines: asked }: Option, all: number): string {
  switch (when) {
    case 'now':
      return t`now`;
    case 'window':
      return on === null ? t`next window` : t`next window, ${day(on)}`;
    case 'plan':
      if (on !== null && asked === all) return t`as planned, ${day(on)}`;
      return asked === all ? t`as planned` : t`as planned, ${asked} of ${all}`;
    case 'month':
      return t`in a month`;
    case 'never':
      return t`never (in a year)`;
  }
}
