import { plural, t } from '@lingui/core/macro';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useMachine, useQueue } from '../../api/queries';
import { walkingOrder } from '../../words/walking';
import { usePageTitle } from '../../ui/usePageTitle';
import '../../ui/entry/entry.css';
import { TypeReading } from '../../ui/entry/TypeReading';
import { Unready } from '../../ui/Unready';

/** A round with a phone: one machine after the other, what it shows under load, next. */
export function Round() {
  usePageTitle(t`A round`);
  const queue = useQueue();
  const [params, setParams] = useSearchParams();
  const [typed, setTyped] = useState<readonly string[]>([]);
  const [left, setLeft] = useState<readonly string[]>([]);
  if (!queue.data || queue.isPlaceholderData) return <Unready of={[queue]} title={t`A round`} />;
  const zones = [...new Map(queue.data.items.map((i) => [i.zone, i.zoneName])).entries()];
  const zone = params.get('zone') ?? zones[0]?.[0] ?? '';
  const chosen = params.getAll('tag');
  const here = walkingOrder(
    queue.data.items.filter((i) => (chosen.length > 0 ? chosen.includes(i.asset) : i.zone === zone)),
  ).map((i) => i.asset);
  const open = here.filter((tag) => !typed.includes(tag) && !left.includes(tag));
  const tag = open[0];
  return (
    <div className="page round">
      {chosen.length > 0 ? (
        <p className="quiet">
          {t`${plural(chosen.length, { one: '# machine', other: '# machines' })} chosen on Rounds.`}
        </p>
      ) : (
        <Select
          aria-label={t`Zone`}
          value={zone}
          className="full before-more"
          onChange={(z) => setParams({ zone: z }, { replace: true })}
          options={zones.map(([value, label]) => ({ value, label }))}
        />
      )}
      {tag === undefined ? (
        <>
          <h1>
            {here.length === 0
              ? t`No machines here.`
              : t`${plural(typed.length, { one: '# machine', other: '# machines' })} read in this round.`}
          </h1>
          <Link to="/">
            <Button type="primary">{t`To Rounds`}</Button>
          </Link>
        </>
      ) : (
        <>
          <p className="quiet" role="status">
            {t`${here.length - open.length + 1} of ${here.length}`}
          </p>
          <h1 className="figures">{tag}</h1>
          <OneMachine
            key={tag}
            tag={tag}
            onKept={() => setTyped([...typed, tag])}
            onLeave={() => setLeft([...left, tag])}
          />
        </>
      )}
    </div>
  );
}

function OneMachine({ tag, onKept, onLeave }: { tag: string; onKept: () => void; onLeave: () => void }) {
  const machine = useMachine(tag);
  if (!machine.data) return <Unready of={[machine]} as="part" />;
  return (
    <>
      <p className="quiet">{machine.data.model}</p>
      <TypeReading
        tag={tag}
        parts={machine.data.parts.map((p) => p.part)}
        onKept={onKept}
        keep={t`Keep, and the next one`}
      />
      <Button type="text" onClick={onLeave}>
        {t`Leave this one out`}
      </Button>
    </>
  );
}
