import { t } from '@lingui/core/macro';
import { Button, Dropdown, Segmented } from 'antd';
import type { Span } from './span';

/** As what a chart is taken along. */
export type Exported = 'svg' | 'png' | 'csv';

/** How much of a chart is looked at, its table, and what it is taken along as. */
export function ChartTools({
  span,
  onAll,
  onLast,
  tableId,
  asTable,
  onTable,
  onExport,
}: {
  /** Null while all of it is looked at. */
  span: Span | null;
  onAll: () => void;
  onLast: (days: number) => void;
  tableId: string;
  asTable: boolean;
  onTable: () => void;
  onExport: (kind: Exported) => void;
}) {
  return (
    <div className="chart-tools">
      <Segmented
        size="small"
        aria-label={t`What is looked at`}
        value={span === null ? 'all' : 'part'}
        onChange={(value) => {
          if (value === 'all') onAll();
          else if (value !== 'part') onLast(value === 'year' ? 365 : 90);
        }}
        options={[
          { value: 'all', label: t`all` },
          { value: 'year', label: t`a year` },
          { value: 'days', label: t`90 days` },
          ...(span === null ? [] : [{ value: 'part', label: t`a part` }]),
        ]}
      />
      <Button size="small" type="text" aria-expanded={asTable} aria-controls={tableId} onClick={onTable}>
        {t`Table`}
      </Button>
      <Dropdown
        trigger={['click']}
        menu={{
          items: [
            { key: 'svg', label: t`Picture, SVG` },
            { key: 'png', label: t`Picture, PNG` },
            { key: 'csv', label: t`Table, CSV` },
          ],
          onClick: ({ key }) => onExport(key as Exported),
        }}
      >
        <Button size="small" type="text">
          {t`Export …`}
        </Button>
      </Dropdown>
    </div>
  );
}
