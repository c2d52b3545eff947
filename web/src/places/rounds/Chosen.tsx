import { plural, t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { QueueItem } from '../../api/client';
import { SetAside } from '../../ui/SetAside';
import { download } from '../../words/csv';
import { minutes } from '../../words/format';
import { minutesOf } from './groups';
import { rowsCsv } from './rowsCsv';

/** What can be done with several machines at once. */
export function Chosen({ items, onClear }: { items: readonly QueueItem[]; onClear: () => void }) {
  const [aside, setAside] = useState(false);
  const navigate = useNavigate();
  const tags = items.map((i) => i.asset);
  return (
    <div className="rounds-chosen" role="region" aria-label={t`Chosen machines`}>
      <strong role="status">
        {t`${plural(items.length, { one: '# machine', other: '# machines' })} chosen`}
        {minutesOf(items) > 0 && t`, ${minutes(minutesOf(items))} of work`}
      </strong>
      <Button
        type="primary"
        onClick={() => void navigate(`/round?${new URLSearchParams(tags.map((t) => ['tag', t])).toString()}`)}
      >
        {t`Start a round`}
      </Button>
      <Button
        onClick={() =>
          void navigate(`/bring?${new URLSearchParams(tags.map((t) => ['asset', t])).toString()}`)
        }
      >
        {t`What to bring`}
      </Button>
      <Button onClick={() => setAside(true)}>{t`Set aside …`}</Button>
      <Button onClick={() => window.print()}>{t`Print`}</Button>
      <Button onClick={() => download('rounds.csv', rowsCsv(items))}>{t`Export CSV`}</Button>
      <Button type="text" onClick={onClear}>
        {t`Choose none`}
      </Button>
      {aside && (
        <SetAside
          tags={tags}
          onClose={(done) => {
            setAside(false);
            if (done) onClear();
          }}
        />
      )}
    </div>
  );
}
