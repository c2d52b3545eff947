import { t } from '@lingui/core/macro';
import { tenths } from '../../words/format';
import { PlainTable } from '../PlainTable';

/** What stands in the table behind a chart, and in its CSV. */
export interface TableOf<Point> {
  header: readonly string[];
  row: (point: Point) => readonly (string | number | null)[];
}

/** The values of a chart as a table. */
export function TableBehind<Point extends { time: Date }>({
  points,
  table,
  rows,
}: {
  points: readonly Point[];
  table: TableOf<Point>;
  rows: readonly (readonly (string | number | null)[])[];
}) {
  return (
    <div className="chart-table">
      <PlainTable
        head={
          <>
            <th scope="col">{t`when`}</th>
            {table.header.map((h) => (
              <th scope="col" className="num" key={h}>
                {h}
              </th>
            ))}
          </>
        }
      >
        {rows.map((row, i) => (
          <tr key={row[0]}>
            <td>{points[i]!.time.toLocaleDateString(undefined, { dateStyle: 'medium' })}</td>
            {row.slice(1).map((cell, c) => (
              <td className="num" key={table.header[c]}>
                {typeof cell === 'number' ? tenths(cell) : cell}
              </td>
            ))}
          </tr>
        ))}
      </PlainTable>
    </div>
  );
}
