import { useLayoutEffect, useRef, type CSSProperties, type ReactNode } from 'react';
import './plainTable.css';

/**
 * The one plain table. On a phone each row becomes a few lines, in which every value carries the word of its column: it is
 * read off the header, which is not seen there.
 * @param head The cells of the header, `th`; none where the rows speak for themselves.
 * @param children The rows, `tr`.
 */
export function PlainTable({
  head,
  children,
  className,
  style,
}: {
  head?: ReactNode;
  children: ReactNode;
  className?: string;
  style?: CSSProperties;
}) {
  const table = useRef<HTMLTableElement>(null);
  useLayoutEffect(() => {
    const words = [...(table.current?.tHead?.rows[0]?.cells ?? [])].map((cell) => cell.textContent);
    for (const row of table.current?.tBodies[0]?.rows ?? [])
      [...row.cells].forEach((cell, i) => {
        const word = i > 0 && cell.colSpan === 1 ? words[i] : undefined;
        if (word) cell.dataset['label'] = word;
      });
  });
  return (
    <table ref={table} className={className ? `plain-table ${className}` : 'plain-table'} style={style}>
      {head && (
        <thead>
          <tr>{head}</tr>
        </thead>
      )}
      <tbody>{children}</tbody>
    </table>
  );
}
