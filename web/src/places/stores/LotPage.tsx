import { plural, t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { useLot } from '../../api/stores';
import { AskReason } from '../../ui/AskReason';
import { NumberField } from '../../ui/NumberField';
import { PlainTable } from '../../ui/PlainTable';
import { Refusal } from '../../ui/Refusal';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { ageWords, amount, size, UNITS } from '../../words/amounts';
import { fullDay, instant } from '../../words/format';
import { EditLot, ThrowAway } from './LotDialog';
import './stores.css';

type LotAnswer = Schemas['LotAnswer'];

const MOVES: Record<Schemas['StockMoveKind'], string> = {
  'came-in': t`came in`,
  used: t`used`,
  counted: t`counted`,
  'thrown-away': t`thrown away`,
  cut: t`cut up`,
  'off-cut': t`left over from cutting`,
};

/** Words of the program among what people wrote. */
const NOTES: Record<string, string> = {
  'usual-amount': t`the usual amount: the job noted none`,
  'more-than-there': t`more was noted than the lot held: count it`,
};

/** One lot: what is left, what came and went, and the machines that it or its batch went into. */
export function LotPage() {
  const id = Number(useParams()['id']);
  const lot = useLot(id);
  usePageTitle(t`Lot ${id}`);
  const [edit, setEdit] = useState(false);
  const [bad, setBad] = useState(false);
  const [away, setAway] = useState(false);
  const change = useWrite((badBecause: string | null) =>
    unwrap(
      api.PUT('/api/v1/stores/lots/{id}', {
        params: { path: { id } },
        body: { ...factsOf(lot.data!.lot), badBecause },
      }),
    ),
  );
  if (!lot.data) return <Unready of={[lot]} missing={t`lot ${String(id)}`} />;
  const { lot: l, moves, users } = lot.data;
  return (
    <div className="page text-width">
      <p className="quiet no-gap">
        <Link to="/stores">{t`Stores`}</Link>
      </p>
      <h1>{t`${l.productName}, lot ${l.id}: ${amount(l.amount, l.unit)}`}</h1>
      <p>
        {[
          l.place,
          l.batch ? t`batch ${l.batch}` : null,
          l.kind === 'pads' && l.widthMm !== null ? t`sheet ${size(l.widthMm, l.heightMm!)}` : null,
          l.openedOn ? t`opened ${fullDay(l.openedOn)}` : null,
          ageWords(l),
          l.reserved > 0 ? t`${amount(l.reserved, l.unit)} spoken for` : null,
        ]
          .filter(Boolean)
          .join(' · ')}
      </p>
      {change.isError && <Refusal error={change.error} />}
      <CountIt lot={l} />
      <div className="button-row next-heading">
        <Button onClick={() => setEdit(true)}>{t`Change …`}</Button>
        <Link to={`/stores/labels?lot=${String(l.id)}`}>
          <Button>{t`Label`}</Button>
        </Link>
        {l.amount > 0 && <Button onClick={() => setAway(true)}>{t`Throw away …`}</Button>}
        {l.badBecause === null ? (
          <Button onClick={() => setBad(true)}>{t`It is bad …`}</Button>
        ) : (
          <Button onClick={() => change.mutate(null)}>{t`It is good after all`}</Button>
        )}
      </div>
      {users.length > 0 && (
        <section>
          <h2>
            {l.batch
              ? t`Batch ${l.batch} went into ${plural(users.length, { one: '# machine', other: '# machines' })}`
              : t`It went into ${plural(users.length, { one: '# machine', other: '# machines' })}`}
          </h2>
          <PlainTable
            head={
              <>
                <th>{t`machine`}</th>
                <th>{t`job`}</th>
                <th>{t`done`}</th>
                <th>{t`amount`}</th>
              </>
            }
          >
            {users.map((u) => (
              <tr key={u.job}>
                <td>
                  <Link to={`/machines/${encodeURIComponent(u.asset)}`}>{u.asset}</Link> {u.model}
                </td>
                <td>
                  <Link to={`/bench/${String(u.job)}`}>{u.job}</Link>
                </td>
                <td>{u.done && fullDay(u.done)}</td>
                <td>{amount(u.amount, l.unit)}</td>
              </tr>
            ))}
          </PlainTable>
        </section>
      )}
      {users.length > 1 && (
        <p>
          <Link
            to={`/weeks/campaigns/new?${new URLSearchParams(users.map((u) => ['asset', u.asset])).toString()}`}
          >
            {t`Make a campaign of these machines`}
          </Link>
        </p>
      )}
      <section className="apart page-end">
        <h2>{t`What came and went`}</h2>
        <PlainTable
          head={
            <>
              <th>{t`when`}</th>
              <th>{t`what`}</th>
              <th>{t`amount`}</th>
              <th>{t`by`}</th>
            </>
          }
        >
          {moves.map((m) => (
            <tr key={`${m.at} ${m.kind} ${String(m.amount)}`}>
              <td>{instant(m.at)}</td>
              <td>
                {MOVES[m.kind]}
                {m.job !== null && (
                  <>
                    {', '}
                    <Link to={`/bench/${String(m.job)}`}>{t`job ${m.job}`}</Link>
                  </>
                )}
                {m.note && <span className="quiet"> · {NOTES[m.note] ?? m.note}</span>}
              </td>
              <td className="figures">
                {m.amount > 0 ? '+' : '−'}
                {amount(Math.abs(m.amount), l.unit)}
              </td>
              <td>{m.by}</td>
            </tr>
          ))}
        </PlainTable>
      </section>
      {edit && <EditLot lot={l} onClose={() => setEdit(false)} />}
      {away && <ThrowAway lot={l} onClose={() => setAway(false)} />}
      {bad && (
        <AskReason
          title={t`This lot is bad`}
          text={t`No job takes of it any more. The machines that it went into stay listed here.`}
          busy={change.isPending}
          confirm={t`Do not use it any more`}
          onClose={() => setBad(false)}
          onReason={(reason) => change.mutateAsync(reason)}
        />
      )}
    </div>
  );
}

/** What somebody counted, typed on a phone. */
export function CountIt({ lot, onDone }: { lot: LotAnswer; onDone?: () => void }) {
  const [counted, setCounted] = useState<number | null>(null);
  const write = useWrite((value: number) =>
    unwrap(
      api.POST('/api/v1/stores/lots/{id}/count', {
        params: { path: { id: lot.id } },
        body: { amount: value, note: null, by: localStorage.getItem('pyrometron.name') },
      }),
    ),
  );
  const keep = (value: number) =>
    void write.mutateAsync(value).then(
      () => {
        setCounted(null);
        onDone?.();
      },
      () => undefined,
    );
  return (
    <div>
      {write.isError && <Refusal error={write.error} />}
      <div className="button-row">
        <NumberField
          aria-label={t`Counted, ${UNITS[lot.unit]!}`}
          placeholder={t`counted`}
          size="large"
          min={0}
          value={counted}
          onChange={setCounted}
          suffix={UNITS[lot.unit]}
          style={{ width: 170 }}
        />
        <Button
          size="large"
          type="primary"
          disabled={counted === null}
          loading={write.isPending}
          onClick={() => keep(counted!)}
        >
          {t`Take it over`}
        </Button>
        {onDone && (
          <Button size="large" onClick={() => keep(lot.amount)}>
            {t`${amount(lot.amount, lot.unit)} is right`}
          </Button>
        )}
      </div>
    </div>
  );
}

const factsOf = (l: LotAnswer) => ({
  batch: l.batch,
  place: l.place,
  openedOn: l.openedOn,
  expiresOn: l.expiresOn,
  pricePerUnit: l.pricePerUnit,
});
