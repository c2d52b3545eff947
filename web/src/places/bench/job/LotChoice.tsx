import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Select } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../../api/client';
import { jobStores } from '../../../api/stores';
import { AskReason } from '../../../ui/AskReason';
import { ageWords, amount } from '../../../words/amounts';
import type { BenchJob } from '../useBenchJob';

type LotAnswer = Schemas['LotAnswer'];

/** A lot of the stores chosen at the step where it is used; one that has expired asks why. */
export function LotChoice({
  job,
  product,
  chosen,
  onChoose,
}: Pick<BenchJob, 'job'> & {
  product: Schemas['ProductKind'];
  chosen: number | null;
  onChoose: (lot: LotAnswer, expiredBecause: string | null) => Promise<void>;
}) {
  const stores = useQuery(jobStores(job.id));
  const [old, setOld] = useState<LotAnswer | null>(null);
  const lots = (stores.data?.lots ?? []).filter((l) => l.kind === product);
  if (lots.length === 0) return null;
  return (
    <label>
      {t`From the stores`}
      <Select
        aria-label={t`Lot`}
        placeholder={t`which lot`}
        className="full"
        popupMatchSelectWidth={false}
        value={chosen}
        onChange={(id: number) => {
          const lot = lots.find((l) => l.id === id)!;
          if (lot.expired) setOld(lot);
          else void onChoose(lot, null);
        }}
        options={lots.map((l) => ({
          value: l.id,
          label: [
            t`lot ${l.id} ${l.productName}`,
            l.place,
            amount(l.amount, l.unit),
            l.expired ? ageWords(l) : null,
          ]
            .filter(Boolean)
            .join(' · '),
        }))}
      />
      {old && (
        <AskReason
          title={t`Lot ${old.id} has expired`}
          text={t`Take another one, or write down why it is used all the same.`}
          busy={false}
          confirm={t`Use it`}
          onClose={() => setOld(null)}
          onReason={(reason) => onChoose(old, reason)}
        />
      )}
    </label>
  );
}
