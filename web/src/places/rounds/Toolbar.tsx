import { t } from '@lingui/core/macro';
import { Input, Select } from 'antd';
import { useEffect, type RefObject } from 'react';
import type { QueueItem } from '../../api/client';
import { useNarrow } from '../../ui/useNarrow';
import { Filters } from './Filters';
import type { Grouping, Order } from './groups';
import type { View } from './useView';

const GROUPINGS: readonly { value: Grouping; label: string }[] = [
  { value: 'urgency', label: t`by urgency` },
  { value: 'zone', label: t`by zone` },
  { value: 'warranty', label: t`by end of warranty` },
];

const ORDERS: readonly { value: Order; label: string }[] = [
  { value: 'pressing', label: t`most pressing first` },
  { value: 'date', label: t`by date` },
  { value: 'minutes', label: t`shortest first` },
  { value: 'tag', label: t`by tag` },
];

/**
 * What is shown, grouped and ordered how.
 * @param finding Whether the reader asked for the search field before it was there.
 */
export function Toolbar({
  items,
  view,
  search: searchRef,
  finding,
}: {
  items: readonly QueueItem[];
  view: View;
  search: RefObject<HTMLInputElement | null>;
  finding: boolean;
}) {
  const narrow = useNarrow(760);
  useEffect(() => {
    if (finding) searchRef.current?.focus();
  }, [finding, searchRef]);
  const choices = (
    <>
      <Filters items={items} filter={view.filter} onChange={view.set} />
      <Select
        aria-label={t`Group`}
        value={view.grouping}
        onChange={(v) => view.set('by', v === 'urgency' ? null : v)}
        options={[...GROUPINGS]}
        popupMatchSelectWidth={false}
      />
      <Select
        aria-label={t`Order`}
        value={view.order}
        onChange={(v) => view.set('order', v === 'pressing' ? null : v)}
        options={[...ORDERS]}
        popupMatchSelectWidth={false}
      />
    </>
  );
  return (
    <div className="rounds-filters">
      <Input
        ref={(input) => {
          searchRef.current = input?.input ?? null;
        }}
        className="rounds-find"
        aria-label={t`Find a machine`}
        placeholder={t`Find a machine`}
        allowClear
        value={view.typed}
        onChange={(e) => view.setTyped(e.target.value)}
        onPressEnter={(e) => e.currentTarget.blur()}
      />
      {narrow ? (
        <details className="rounds-folded">
          <summary>{t`Filter and order`}</summary>
          <div className="rounds-filters">{choices}</div>
        </details>
      ) : (
        choices
      )}
    </div>
  );
}
