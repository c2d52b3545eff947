import { t } from '@lingui/core/macro';
import { Select } from 'antd';
import { PlainTable } from '../../ui/PlainTable';

/** A column of a file: what stands in it, and what it is taken for. */
export interface Column {
  header: string;
  field: string;
  /** Values of its first lines; shown where there are any. */
  sample?: string;
  unit?: string | null;
}

/** What each column of a file is taken for, to be put right by a person. */
export function Columns({
  columns,
  fields,
  onSettle,
}: {
  columns: readonly Column[];
  fields: Record<string, string>;
  onSettle: (header: string, field: string) => void;
}) {
  const isLog = columns.some((c) => c.sample !== undefined);
  return (
    <div className="scroll-x">
      <PlainTable
        head={
          <>
            <th>{t`column`}</th>
            {isLog && <th>{t`as it stands`}</th>}
            <th>{t`read as`}</th>
            {isLog && <th>{t`unit`}</th>}
          </>
        }
      >
        {columns.map((c, i) => (
          <tr key={`${String(i)} ${c.header}`}>
            <td>{c.header || t`(no header)`}</td>
            {isLog && <td className="figures">{c.sample}</td>}
            <td>
              <Select
                aria-label={t`What ${c.header} holds`}
                value={c.field}
                size="small"
                style={{ minWidth: 200 }}
                onChange={(field: string) => onSettle(c.header, field)}
                options={Object.entries(fields).map(([value, label]) => ({ value, label }))}
              />
            </td>
            {isLog && <td>{c.unit}</td>}
          </tr>
        ))}
      </PlainTable>
    </div>
  );
}
