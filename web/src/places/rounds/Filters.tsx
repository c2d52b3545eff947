import { t } from '@lingui/core/macro';
import { Select } from 'antd';
import { useMemo } from 'react';
import type { QueueItem } from '../../api/client';
import { KIND_NAMES } from '../../words/format';
import type { Filter } from './groups';
import { word } from '../../words/word';

/** What the rounds can be narrowed to, with the choices that the queue holds. */
const filtersOf = (items: readonly QueueItem[]) =>
  [
    {
      key: 'site',
      label: t`Site`,
      all: t`All sites`,
      width: 128,
      choices: distinct(items, (i) => [i.site, i.site]),
    },
    {
      key: 'zone',
      label: t`Zone`,
      all: t`All zones`,
      width: 144,
      choices: distinct(items, (i) => [i.zone, i.zoneName]),
    },
    { key: 'kind', label: t`Kind`, all: t`All kinds`, width: 128, choices: Object.entries(KIND_NAMES) },
    {
      key: 'urgency',
      label: t`Urgency`,
      all: t`Any urgency`,
      width: 164,
      choices: ['now', 'next', 'soon', 'watch', 'fine', 'unknown'].map((u): [string, string] => [u, word(u)]),
    },
  ] as const;

const distinct = (items: readonly QueueItem[], pair: (item: QueueItem) => [string, string]) => [
  ...new Map(items.map(pair)),
];

/** One choice a field that the rounds can be narrowed by. */
export function Filters({
  items,
  filter,
  onChange,
}: {
  items: readonly QueueItem[];
  filter: Filter;
  onChange: (field: keyof Filter, value: string | null) => void;
}) {
  const filters = useMemo(() => filtersOf(items), [items]);
  return (
    <>
      {filters.map(({ key, label, all, width, choices }) => (
        <Select
          key={key}
          aria-label={label}
          placeholder={all}
          style={{ width }}
          allowClear
          value={filter[key]}
          onChange={(v: string | undefined) => onChange(key, v ?? null)}
          options={choices.map(([value, label]) => ({ value, label }))}
          popupMatchSelectWidth={false}
        />
      ))}
    </>
  );
}
