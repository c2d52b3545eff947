import { plural, t } from '@lingui/core/macro';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { useStores } from '../../api/stores';
import { codeOf } from '../../ui/paper/SheetHead';
import '../../ui/paper/paper.css';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import '../../ui/work.css';
import { fullDay } from '../../words/format';

/** Labels for lots: what it is, its batch and day, and a QR code that opens it. */
export function LotLabels() {
  usePageTitle(t`Labels for lots`);
  const stores = useStores();
  const [params] = useSearchParams();
  const [chosen, setChosen] = useState<number[]>(params.getAll('lot').map(Number));
  if (!stores.data) return <Unready of={[stores]} title={t`Labels for lots`} />;
  const { lots } = stores.data;
  const shown = lots.filter((l) => chosen.length === 0 || chosen.includes(l.id));
  return (
    <div className="sheet">
      <div className="no-print">
        <h1>{t`Labels for lots.`}</h1>
        <p className="quiet">
          {t`21 to a sheet of A4, 63.5 × 38.1 mm each. Scanned, a label opens its lot: count it, or see what it went into.`}
        </p>
        <div className="bench-more">
          <Select
            mode="multiple"
            aria-label={t`Lots`}
            placeholder={t`all lots, or single ones`}
            value={chosen}
            onChange={setChosen}
            options={lots.map((l) => ({ value: l.id, label: t`${l.id} ${l.productName}` }))}
            style={{ minWidth: 260, flex: 1 }}
          />
          <Button type="primary" disabled={shown.length === 0} onClick={() => window.print()}>
            {t`Print ${plural(shown.length, { one: '# label', other: '# labels' })}`}
          </Button>
        </div>
      </div>
      <div className="label-sheet">
        {shown.map((l) => (
          <div key={l.id}>
            <img src={codeOf(`/stores/lots/${String(l.id)}`)} alt={t`QR code of lot ${l.id}`} />
            <div>
              <strong className="figures lead">{t`lot ${l.id}`}</strong>
              <div>{l.productName}</div>
              <div className="small">
                {[l.batch, l.lastDay ? t`until ${fullDay(l.lastDay)}` : null].filter(Boolean).join(' · ')}
              </div>
            </div>
          </div>
        ))}
      </div>
    </div>
  );
}
