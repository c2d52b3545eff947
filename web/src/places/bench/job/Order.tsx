import { t } from '@lingui/core/macro';
import { Button, Checkbox, Input } from 'antd';
import { useState } from 'react';
import { NumberField } from '../../../ui/NumberField';
import type { BenchJob } from '../useBenchJob';
import { AskFields } from './AskFields';

/** What was agreed with the machine's owner; absent where machines belong to the house. */
export function Order({ job, write }: BenchJob) {
  const [open, setOpen] = useState(false);
  const { order } = job;
  if (job.schools.othersMachines !== true && !order) return null;
  return (
    <section className="section" aria-label={t`Agreed with its owner`}>
      <div className="section-head">
        <h2>{t`Agreed with its owner`}</h2>
        {job.state !== 'abandoned' && !open && (
          <Button size="small" onClick={() => setOpen(true)}>
            {order ? t`Change it` : t`Write it down`}
          </Button>
        )}
      </div>
      {open ? (
        <AgreeOrder job={job} write={write} onKept={() => setOpen(false)} />
      ) : (
        <p>{order ? orderWords(order) : t`Nothing is written down.`}</p>
      )}
    </section>
  );
}

/** An order in one line. */
export const orderWords = (order: NonNullable<BenchJob['job']['order']>): string =>
  [
    order.owner ? `${order.owner}: ${order.scope}` : order.scope,
    order.priceCap === null || order.priceCap === undefined ? null : t`at most ${String(order.priceCap)}`,
    order.mayOpen ? t`may be opened` : t`may not be opened`,
    order.backedUp ? t`data is backed up` : null,
    order.condition ? t`as handed in: ${order.condition}` : null,
  ]
    .filter(Boolean)
    .join('; ') + '.';

/** The order, short enough for a job of ten minutes. */
export function AgreeOrder({ job, write, onKept }: BenchJob & { onKept?: () => void }) {
  const [scope, setScope] = useState(job.order?.scope ?? '');
  const [owner, setOwner] = useState(job.order?.owner ?? '');
  const [cap, setCap] = useState<number | null>(job.order?.priceCap ?? null);
  const [condition, setCondition] = useState(job.order?.condition ?? '');
  const [mayOpen, setMayOpen] = useState(job.order?.mayOpen ?? false);
  const [backedUp, setBackedUp] = useState(job.order?.backedUp ?? false);
  return (
    <AskFields>
      <label>
        {t`What is to be done, in the owner’s words`}
        <Input
          value={scope}
          maxLength={500}
          placeholder={t`clean it, it is loud`}
          onChange={(e) => setScope(e.target.value)}
        />
      </label>
      <label>
        {t`Owner`}
        <Input value={owner} maxLength={200} onChange={(e) => setOwner(e.target.value)} />
      </label>
      <label>
        {t`At most, without asking again`}
        <NumberField aria-label={t`Price cap`} min={0} max={1_000_000} value={cap} onChange={setCap} />
      </label>
      <label>
        {t`How it looks as it is handed in`}
        <Input
          value={condition}
          maxLength={500}
          placeholder={t`lid scratched, one foot missing`}
          onChange={(e) => setCondition(e.target.value)}
        />
      </label>
      <Checkbox checked={mayOpen} onChange={(e) => setMayOpen(e.target.checked)}>
        {t`The owner agrees to its being opened`}
      </Checkbox>
      <Checkbox checked={backedUp} onChange={(e) => setBackedUp(e.target.checked)}>
        {t`The owner says that the data is backed up`}
      </Checkbox>
      <Button
        size="large"
        type="primary"
        disabled={scope.trim() === ''}
        onClick={() =>
          void write({
            kind: 'order-agreed',
            scope: scope.trim(),
            owner: owner.trim() || null,
            priceCap: cap,
            mayOpen,
            condition: condition.trim() || null,
            backedUp,
          }).then(onKept)
        }
      >
        {t`Keep what was agreed`}
      </Button>
    </AskFields>
  );
}
