import { Popover } from 'antd';
import type { ReactNode } from 'react';
import './figureBreakdown.css';

/** A number that opens to what it is made of. */
export function FigureBreakdown({
  children,
  title,
  lines,
}: {
  children: ReactNode;
  title: string;
  lines: readonly (readonly [string, string])[];
}) {
  return (
    <Popover
      trigger="click"
      title={title}
      content={
        <table className="making">
          <tbody>
            {lines.map(([what, value]) => (
              <tr key={what}>
                <th scope="row">{what}</th>
                <td>{value}</td>
              </tr>
            ))}
          </tbody>
        </table>
      }
    >
      <button type="button" className="making-number">
        {children}
      </button>
    </Popover>
  );
}
