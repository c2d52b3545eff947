import { t } from '@lingui/core/macro';
import type { Schemas } from '../api/client';
import { amount, missingWords, mm } from '../words/amounts';
import { listed } from '../words/format';
import { PRODUCTS } from '../words/work';

/** What to take off the shelf for some machines, summed by lot, with driver bits and tools; what is missing first. */
export function OffTheShelf({ bring }: { bring: Schemas['BringAnswer'] }) {
  const missing = bring.jobs.flatMap((j) =>
    j.missing.map((m) => ({ asset: j.asset, words: missingWords(m) })),
  );
  const ready = bring.jobs.flatMap((j) => j.ready.map((r) => ({ asset: j.asset, ...r })));
  return (
    <>
      {missing.map((m) => (
        <p key={`${m.asset} ${m.words}`} className="heavy no-gap">
          {t`Not there for ${m.asset}: ${m.words}.`}
        </p>
      ))}
      <ul className="bring-list">
        {sumByLot(bring).map((line) => (
          <Line key={line}>{line}</Line>
        ))}
        {ready.map((r) => (
          <Line key={`${r.asset} ${String(r.thicknessMm)}`}>
            {t`pads of ${mm(r.thicknessMm)} cut for ${r.asset}: ${r.count}`}
          </Line>
        ))}
        {bring.bits.length > 0 && <Line>{t`driver bits ${listed(bring.bits)}`}</Line>}
        {bring.tools.map((tool) => (
          <Line key={tool}>{tool}</Line>
        ))}
      </ul>
      {bring.withoutNotes.length > 0 && (
        <p className="quiet small">
          {t`Nobody noted the screws of ${listed(bring.withoutNotes)}: bring all bits.`}
        </p>
      )}
    </>
  );
}

function Line({ children }: { children: React.ReactNode }) {
  return (
    <li>
      <span className="sheet-box small-box" /> {children}
    </li>
  );
}

function sumByLot(bring: Schemas['BringAnswer']): string[] {
  const takes = new Map<number, Schemas['TakeAnswer']>();
  for (const take of bring.jobs.flatMap((j) => j.takes)) {
    const before = takes.get(take.lot);
    takes.set(take.lot, {
      ...take,
      amount: take.amount + (before?.amount ?? 0),
      pieces: take.pieces === null ? null : take.pieces + (before?.pieces ?? 0),
    });
  }
  return [...takes.values()].map((take) => {
    const where = take.batch
      ? t`lot ${take.lot}, batch ${take.batch}, ${take.place}`
      : t`lot ${take.lot}, ${take.place}`;
    return take.pieces !== null
      ? t`${take.product} for ${take.pieces} pads · ${where}`
      : take.unit === 'piece' && take.product === PRODUCTS[take.kind]
        ? `${amount(take.amount, take.unit)} ${take.product} · ${where}`
        : `${take.product}, ${amount(take.amount, take.unit)} · ${where}`;
  });
}
