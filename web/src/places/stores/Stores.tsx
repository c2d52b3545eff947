import { plural, t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useShopping, useStores } from '../../api/stores';
import type { Schemas } from '../../api/client';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { missingWords } from '../../words/amounts';
import { day, fullDay, money } from '../../words/format';
import { Cutting } from './Cutting';
import { LotDialog } from './LotDialog';
import { ProductDialog } from './ProductDialog';
import { Shelf } from './Shelf';
import './stores.css';

type StoresAnswer = Schemas['StoresAnswer'];

/** Jobs ahead that are looked at. */
export const JOBS = 30;

/** What is on the shelf, for how many of the next jobs it is enough, what to buy, and how pads are cut. */
export function Stores() {
  usePageTitle(t`Stores`);
  const stores = useStores();
  const shopping = useShopping(JOBS);
  const [adding, setAdding] = useState<'product' | 'lot' | null>(null);
  if (!stores.data) return <Unready of={[stores]} title={t`Stores`} />;
  const { products, lots, ahead, countedAt, countedBy } = stores.data;
  const short = firstShort(stores.data);
  const lines = shopping.data?.lines ?? [];
  return (
    <div className="page">
      <p className="quiet no-gap">
        {countedAt === null
          ? t`Never counted`
          : countedBy
            ? t`Counted ${day(countedAt.slice(0, 10))} by ${countedBy}`
            : t`Counted ${day(countedAt.slice(0, 10))}`}
      </p>
      <h1>{headline(stores.data)}</h1>
      {short && (
        <p className="quiet">
          {missingWords(short.missing)}: {waiting(short.job)}
        </p>
      )}
      {products.length === 0 && (
        <p className="quiet text-width">
          {t`Put in what you use: pastes, pads, alcohol, wipes, spare fans. Then each job says where its material lies, filing it books what it used, and the list says what to buy before a job waits for it.`}
        </p>
      )}
      <div className="button-row next-heading">
        <Link to="/stores/shopping">
          <Button type="primary">
            {shopping.data && lines.length > 0
              ? t`Shopping list: ${plural(lines.length, { one: '# thing', other: '# things' })}, ${money(shopping.data.cost, shopping.data.currency)}`
              : t`Shopping list`}
          </Button>
        </Link>
        <Link to="/stores/count">
          <Button>{t`Count with the phone`}</Button>
        </Link>
        <Link to="/stores/paste">
          <Button>{t`Paste for a chip …`}</Button>
        </Link>
        <Link to="/stores/pad">
          <Button>{t`Which pad?`}</Button>
        </Link>
        <Link to="/stores/labels">
          <Button>{t`Labels for lots`}</Button>
        </Link>
      </div>
      <div className="stores">
        <Shelf products={products} lots={lots} onAdd={setAdding} />
        {products.length > 0 && <Cutting ahead={ahead} readyFor={stores.data.readyFor} />}
      </div>
      {adding === 'product' && <ProductDialog product={null} onClose={() => setAdding(null)} />}
      {adding === 'lot' && <LotDialog products={products} onClose={() => setAdding(null)} />}
    </div>
  );
}

function headline(s: StoresAnswer): string {
  if (s.products.length === 0) return t`Nothing is known of the shelf yet.`;
  if (s.jobs === 0) return t`No job ahead takes anything from the shelf.`;
  const unknown = s.ahead.filter((j) => j.unknown).length;
  const enough =
    s.served === s.jobs
      ? t`Enough for the next ${plural(s.jobs, { one: '# job', other: '# jobs' })}.`
      : t`Enough for ${s.served} of the next ${plural(s.jobs, { one: '# job', other: '# jobs' })}.`;
  return unknown > 0
    ? `${enough} ${t`Of ${plural(unknown, { one: '# job', other: '# jobs' })} nobody noted which pads.`}`
    : enough;
}

/** The first job that waits, and for what. */
function firstShort(s: StoresAnswer) {
  const job = s.ahead.find((j) => j.missing.length > 0);
  return job && { job, missing: job.missing[0]! };
}

function waiting(job: Schemas['JobAheadAnswer']): string {
  const on = job.day ?? job.dueBy;
  return on
    ? t`the first to wait for it is ${job.asset}, on ${fullDay(on)}.`
    : t`the first to wait for it is ${job.asset}.`;
}
