import type { Schemas } from '../../api/client';
import { count } from '../../words/format';

const MOST = 20;

/** Lines that were not taken, with why. */
export function RefusedLines({
  refused,
  total = refused.length,
}: {
  refused: readonly Schemas['RefusedLine'][];
  total?: number;
}) {
  if (refused.length === 0) return null;
  return (
    <div className="scroll-x">
      <table className="plain-table">
        <thead>
          <tr>
            <th className="num">line</th>
            <th>column</th>
            <th>why it was refused</th>
          </tr>
        </thead>
        <tbody>
          {refused.slice(0, MOST).map((r) => (
            <tr key={`${String(r.line)} ${r.column ?? ''} ${r.message}`}>
              <td className="num">{r.line}</td>
              <td>{r.column}</td>
              <td>{r.message}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {total > MOST && <p className="quiet small">of {count(total, 'line')}</p>}
    </div>
  );
}
