import { plural, t } from '@lingui/core/macro';
import { Button, Select } from 'antd';
import { Link, useSearchParams } from 'react-router';
import type { Schemas } from '../../api/client';
import { useShopping } from '../../api/stores';
import { PlainTable } from '../../ui/PlainTable';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { amount, missingWords, mm } from '../../words/amounts';
import { fullDay, money } from '../../words/format';
import { say } from '../../words/message';
import { PRODUCTS } from '../../words/work';
import './stores.css';

type Line = Schemas['ShoppingLineAnswer'];

const CHOICES = [10, 30, 60, 100, 200];

/** What to buy for the next jobs: the packs that cost least, and the last day to order them. */
export function Shopping() {
  usePageTitle(t`Shopping list`);
  const [params, setParams] = useSearchParams();
  const asked = Number(params.get('jobs'));
  const jobs = CHOICES.includes(asked) ? asked : 30;
  const shopping = useShopping(jobs);
  if (!shopping.data) return <Unready of={[shopping]} title={t`Shopping list`} />;
  const { lines, cost, unpriced, currency } = shopping.data;
  return (
    <div className="page broad">
      <p className="quiet no-gap">
        <Link to="/stores">{t`Stores`}</Link>
      </p>
      <h1>
        {lines.length === 0
          ? t`Nothing to buy for the next ${plural(shopping.data.jobs, { one: '# job', other: '# jobs' })}.`
          : t`${plural(lines.length, { one: '# thing', other: '# things' })} to buy, ${money(cost, currency)}.`}
      </h1>
      {unpriced > 0 && (
        <p className="quiet">
          {t`Without ${plural(unpriced, { one: '# line', other: '# lines' })} whose product or price is not known.`}
        </p>
      )}
      <div className="button-row before-more stores-filters">
        <Select
          aria-label={t`For how many jobs`}
          value={jobs}
          onChange={(n) => setParams({ jobs: String(n) }, { replace: true })}
          options={CHOICES.map((n) => ({ value: n, label: t`for the next ${n} jobs` }))}
          style={{ minWidth: 190 }}
        />
        <a href={`/api/v1/stores/shopping.csv?jobs=${String(jobs)}`} download>
          <Button>{t`CSV`}</Button>
        </a>
        <Button onClick={() => print()}>{t`Print`}</Button>
      </div>
      {lines.length > 0 && (
        <PlainTable
          head={
            <>
              <th>{t`what`}</th>
              <th>{t`missing`}</th>
              <th>{t`buy`}</th>
              <th>{t`cost`}</th>
              <th>{t`order by`}</th>
              <th>{t`for`}</th>
            </>
          }
        >
          {lines.map((l) => (
            <Row
              key={`${l.kind} ${String(l.thicknessMm)} ${l.model ?? ''} ${l.buy[0]?.product ?? ''}`}
              line={l}
              currency={currency}
            />
          ))}
        </PlainTable>
      )}
    </div>
  );
}

function Row({ line: l, currency }: { line: Line; currency: string }) {
  return (
    <tr>
      <td>
        <strong>{whatOf(l)}</strong>
        {l.notes.map((n) => (
          <div key={n.template} className="quiet small">
            {say(n)}
          </div>
        ))}
      </td>
      <td>
        {l.thicknessMm !== null && l.for.length > 0
          ? missingWords({ ...l, amount: l.missing })
          : amount(l.missing, l.unit)}
      </td>
      <td>
        {l.buy.length === 0
          ? t`nothing known`
          : l.buy.map((b) => `${String(b.packs)} × ${b.name} (${amount(b.packAmount, b.unit)})`).join(', ')}
      </td>
      <td className="figures">{l.cost === null ? '–' : money(l.cost, currency)}</td>
      <td>
        {l.orderBy === null ? '–' : fullDay(l.orderBy)}
        {l.late && l.neededOn !== null && (
          <div className="small heavy">{t`too late for ${fullDay(l.neededOn)}`}</div>
        )}
      </td>
      <td className="small">
        {l.for.slice(0, 4).join(', ')}
        {l.for.length > 4 && t` and ${l.for.length - 4} more`}
      </td>
    </tr>
  );
}

const whatOf = (l: Line): string =>
  [PRODUCTS[l.kind], l.thicknessMm !== null ? mm(l.thicknessMm) : null, l.model ? t`for ${l.model}` : null]
    .filter(Boolean)
    .join(' ');
