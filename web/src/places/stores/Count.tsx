import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useStores } from '../../api/stores';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { ageWords, amount, lotWords, size } from '../../words/amounts';
import { CountIt } from './LotPage';
import '../../ui/work.css';
import './stores.css';

/** The shelf counted with a phone: one lot after the other, by where they stand. */
export function Count() {
  usePageTitle(t`Counting the shelf`);
  const stores = useStores();
  const [done, setDone] = useState<readonly number[]>([]);
  if (!stores.data) return <Unready of={[stores]} title={t`Counting the shelf`} />;
  const lots = [...stores.data.lots].sort((a, b) => a.place.localeCompare(b.place) || a.id - b.id);
  const open = lots.filter((l) => !done.includes(l.id));
  const lot = open[0];
  const next = (id: number) => setDone((before) => [...before, id]);
  if (!lot)
    return (
      <div className="bench">
        <h1>{lots.length === 0 ? t`There is nothing to count.` : t`All lots are counted.`}</h1>
        <Link to="/stores">
          <Button type="primary">{t`Back to the stores`}</Button>
        </Link>
      </div>
    );
  return (
    <div className="bench">
      <p className="quiet" role="status">
        {t`${done.length + 1} of ${lots.length}`}
      </p>
      <h1>{lot.productName}</h1>
      <p className="lead">
        {[
          lotWords(lot),
          lot.kind === 'pads' && lot.widthMm !== null ? size(lot.widthMm, lot.heightMm!) : null,
          ageWords(lot),
        ]
          .filter(Boolean)
          .join(' · ')}
      </p>
      <p>{t`By the book: ${amount(lot.amount, lot.unit)}.`}</p>
      <CountIt key={lot.id} lot={lot} onDone={() => next(lot.id)} />
      <div className="bench-more">
        <Button onClick={() => next(lot.id)}>{t`Leave it out`}</Button>
        <Link to="/stores">{t`Stop counting`}</Link>
      </div>
    </div>
  );
}
