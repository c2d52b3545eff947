import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { ageWords, amount, size } from '../../words/amounts';
import { ProductDialog } from './ProductDialog';

type ProductAnswer = Schemas['ProductAnswer'];
type LotAnswer = Schemas['LotAnswer'];

/** What is on the shelf: each product as a strip, black what jobs ahead have spoken for. */
export function Shelf({
  products,
  lots,
  onAdd,
}: {
  products: readonly ProductAnswer[];
  lots: readonly LotAnswer[];
  onAdd: (what: 'product' | 'lot') => void;
}) {
  const [edited, setEdited] = useState<ProductAnswer | null>(null);
  return (
    <section aria-label={t`On the shelf`}>
      <h2 className="stores-head">{t`On the shelf`}</h2>
      <div className="button-row">
        <Button size="small" onClick={() => onAdd('lot')} disabled={products.length === 0}>
          {t`Something came in …`}
        </Button>
        <Button size="small" onClick={() => onAdd('product')}>
          {t`New product …`}
        </Button>
      </div>
      <ul className="bare-list">
        {products.map((p) => (
          <li key={p.code} className="stores-product">
            <div className="stores-name">
              <button type="button" className="link-like" onClick={() => setEdited(p)}>
                {p.name}
              </button>{' '}
              <span className="quiet small">{aboutOf(p)}</span>
            </div>
            <span className="figures stores-amount">{amount(p.usable, p.unit)}</span>
            <Strip product={p} />
            <span className="stores-note">{noteOf(p)}</span>
            <Lots lots={lots.filter((l) => l.product === p.code)} />
          </li>
        ))}
      </ul>
      {products.length > 0 && (
        <p className="quiet small">
          <span className="stores-sample" aria-hidden="true" />
          {t`spoken for by jobs ahead`}
        </p>
      )}
      {edited && <ProductDialog product={edited} onClose={() => setEdited(null)} />}
    </section>
  );
}

/** A product's strip: as long as a full stock of it. */
function Strip({ product }: { product: ProductAnswer }) {
  const full = Math.max(product.pack.amount, product.usable, product.lowAt ?? 0);
  const share = (value: number) => `${String((100 * value) / full)}%`;
  return (
    <span
      className="stores-strip"
      role="img"
      aria-label={t`${amount(product.reserved, product.unit)} of ${amount(product.usable, product.unit)} spoken for`}
    >
      <span className="stores-free" style={{ width: share(product.usable) }} />
      <span
        className="stores-reserved"
        style={{ width: share(product.reserved), left: share(product.usable - product.reserved) }}
      />
      {product.lowAt !== null && <span className="stores-low" style={{ left: share(product.lowAt) }} />}
    </span>
  );
}

function Lots({ lots }: { lots: readonly LotAnswer[] }) {
  return (
    <ul className="bare-list stores-lots">
      {lots.map((l) => (
        <li key={l.id} className={l.expired || l.badBecause !== null ? 'quiet' : undefined}>
          <Link to={`/stores/lots/${String(l.id)}`}>{t`lot ${l.id}`}</Link>{' '}
          {[
            l.place,
            l.kind === 'pads' && l.widthMm !== null ? size(l.widthMm, l.heightMm!) : null,
            amount(l.amount, l.unit),
            ageWords(l),
          ]
            .filter(Boolean)
            .join(' · ')}
        </li>
      ))}
    </ul>
  );
}

const aboutOf = (p: ProductAnswer): string =>
  [
    p.kind === 'pads' && p.facts.sheetWidthMm
      ? t`sheet ${size(p.facts.sheetWidthMm, p.facts.sheetHeightMm!)}`
      : null,
    p.facts.conductivityWPerMK ? t`${p.facts.conductivityWPerMK} W/(m·K)` : null,
    p.fits.length > 0 ? t`for ${p.fits.join(', ')}` : null,
  ]
    .filter(Boolean)
    .join(' · ');

const noteOf = (p: ProductAnswer): string =>
  p.usable === 0 ? t`none left` : p.isLow ? t`below its line` : '';
