import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { SheetHead } from '../../ui/paper/SheetHead';
import '../../ui/paper/paper.css';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { fullDay, kelvin, minutes, money, whole } from '../../words/format';
import { levelName } from '../../words/work';
import { headline } from './headline';
import { sidesWords } from './sidesWords';

type Answer = Schemas['WonAnswer'];

/** More machines that won nothing than these do not fit on the page: they are counted. */
const MOST_LISTED = 8;

/** One page for whoever pays: what work has won and cost, where it won nothing, how often the cause was right. */
export function Report() {
  usePageTitle(t`Report on work done`);
  const [params] = useSearchParams();
  const days = Object.fromEntries(
    (['from', 'until'] as const).flatMap((name) => {
      const day = params.get(name);
      return day ? [[name, day]] : [];
    }),
  );
  const answer = useQuery({
    queryKey: ['proof', 'level', days],
    queryFn: () => unwrap(api.GET('/api/v1/proof', { params: { query: { by: 'level', ...days } } })),
  });
  if (!answer.data) return <Unready of={[answer]} title={t`Report on work done`} />;
  const won = answer.data;
  const query = new URLSearchParams(days).toString();
  return (
    <div className="sheet">
      <SheetHead
        place={`/proof${query ? `?${query}` : ''}`}
        back={t`Back to Proof`}
        code={t`QR code of Proof`}
        title={t`What work on cooling has won`}
      >
        <p>{daysWords(won)}</p>
      </SheetHead>
      <p>
        <strong>{headline(won.all)}</strong>
      </p>
      {won.all.jobs > 0 && (
        <>
          <p>{spentWords(won)}</p>
          <p>{moneyWords(won)}</p>
          <table className="sheet-table">
            <thead>
              <tr>
                <th>{t`work`}</th>
                <th>{t`jobs`}</th>
                <th>{t`cooler / no change / worse`}</th>
                <th>{t`won, mean`}</th>
                <th>{t`came back`}</th>
                <th>{t`hours`}</th>
                <th>{t`cost`}</th>
                <th>{t`won, in money`}</th>
              </tr>
            </thead>
            <tbody>
              {won.groups.map((g) => (
                <tr key={g.key}>
                  <td>{levelName(g.key as Schemas['ServiceLevel'])}</td>
                  <td>{g.won.jobs}</td>
                  <td>{`${String(g.won.improved)} / ${String(g.won.noChange)} / ${String(g.won.worse)}`}</td>
                  <td>
                    {g.won.meanKelvin === null || g.won.expandedKelvin === null
                      ? t`not known`
                      : t`${kelvin(g.won.meanKelvin)} ± ${kelvin(g.won.expandedKelvin)}`}
                  </td>
                  <td>{g.won.cameBack}</td>
                  <td>{minutes(Math.round(g.spent.minutes))}</td>
                  <td>{money(g.spent.all, won.currency)}</td>
                  <td>
                    {g.money.jobs === 0
                      ? t`not known`
                      : `${money(g.money.all, won.currency)} ± ${money(g.money.expanded, won.currency)}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <h2>{t`Where it won nothing, or did not last`}</h2>
          <p>{lostWords(won)}</p>
          <h2>{t`How often the cause was right`}</h2>
          <p>{causeWords(won)}</p>
          <p className="small">
            {t`Won: mean of the jobs with a run before and after, worse and unchanged ones with them, on the part that won most; ± is twice the standard uncertainty of that mean. Cost: the minutes by what an hour costs in this house, material from the shelf, and the work that machines lost meanwhile and in their tests. Won in money: slower ageing at the temperatures of the runs, a higher clock or score, quiet and ended crashes, taken to last for those years; ± as far as the runs leave it open.`}{' '}
            {estimatedWords(won)}
          </p>
        </>
      )}
    </div>
  );
}

function daysWords({ from, until }: Answer): string {
  if (from && until) return t`Work done from ${fullDay(from)} to ${fullDay(until)}.`;
  if (from) return t`Work done since ${fullDay(from)}.`;
  return until ? t`Work done up to ${fullDay(until)}.` : t`All work that is on record.`;
}

function spentWords({ all, machines, spent, currency }: Answer): string {
  const on = plural(machines, { one: '# machine', other: '# machines' });
  const a = money(spent.all / all.jobs, currency);
  return t`It was done on ${on} and took ${minutes(Math.round(spent.minutes))} of work. It cost ${money(spent.all, currency)}, ${a} a job: ${money(spent.work, currency)} of work, ${money(spent.material, currency)} of material, ${money(spent.downtime, currency)} of downtime.`;
}

/** What it won in money against its cost, and from how many jobs that is known. */
function moneyWords({ all, sides, money: m, spent, currency, payBackYears }: Answer): string {
  if (m.jobs === 0) return t`What it won in money is not known: no job was compared.`;
  const years = plural(payBackYears, { one: '# year', other: '# years' });
  const net = m.all - spent.all;
  const within = money(m.expanded, currency);
  const sum =
    Math.abs(net) <= m.expanded
      ? t`Whether it has paid is open within that.`
      : net > 0
        ? t`That is ${money(net, currency)} more than it cost.`
        : t`That is ${money(-net, currency)} less than it cost.`;
  const of =
    m.jobs < all.jobs
      ? t`Of the other ${plural(all.jobs - m.jobs, { one: '# job', other: '# jobs' })} nothing is known, and nothing is counted.`
      : '';
  return [
    sidesWords(sides),
    t`By what things are worth to this house the ${plural(m.jobs, { one: '# job compared', other: '# jobs compared' })} won ${money(m.all, currency)} ± ${within} within ${years}.`,
    sum,
    of,
  ]
    .filter(Boolean)
    .join(' ');
}

function lostWords({ all, withoutGain }: Answer): string {
  if (withoutGain.length === 0) return t`Nowhere, as far as it was compared.`;
  const named = withoutGain.slice(0, MOST_LISTED).map((j) => `${j.asset} (${levelName(j.level)})`);
  const more = withoutGain.length - named.length;
  const broken = plural(all.brokenParts, { one: '# part was broken', other: '# parts were broken' });
  return `${named.join(', ')}${more > 0 ? t` and ${more} more` : ''}. ${broken}.`;
}

function causeWords({ causes }: Answer): string {
  const jobs = causes.reduce((sum, c) => sum + c.jobs, 0);
  if (jobs === 0) return t`Nobody has noted yet what was found.`;
  const right = causes.reduce((sum, c) => sum + (c.predicted === c.found ? c.jobs : 0), 0);
  return t`Of ${plural(jobs, { one: '# finding', other: '# findings' })} on opening ${right} had the cause that was predicted (${whole((100 * right) / jobs)} %).`;
}

function estimatedWords({ spent }: Answer): string {
  const said = [
    spent.minutesUsual > 0 &&
      t`Of ${plural(spent.minutesUsual, { one: '# job', other: '# jobs' })} nobody booked the minutes: what the work usually takes stands for them.`,
    spent.materialUsual > 0 &&
      t`Of ${plural(spent.materialUsual, { one: '# job', other: '# jobs' })} the usual cost of material stands, since none was booked or a price is missing.`,
  ];
  return said.filter(Boolean).join(' ');
}
