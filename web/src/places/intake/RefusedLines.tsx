import { plural, t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { PlainTable } from '../../ui/PlainTable';
import { say } from '../../words/message';

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
      <PlainTable
        head={
          <>
            <th className="num">{t`line`}</th>
            <th>{t`column`}</th>
            <th>{t`why it was refused`}</th>
          </>
        }
      >
        {refused.slice(0, MOST).map((r) => (
          <tr key={`${String(r.line)} ${r.column ?? ''} ${r.message}`}>
            <td className="num">{r.line}</td>
            <td>{r.column}</td>
            <td>{say(r.says)}</td>
          </tr>
        ))}
      </PlainTable>
      {total > MOST && (
        <p className="quiet small">{t`of ${plural(total, { one: '# line', other: '# lines' })}`}</p>
      )}
    </div>
  );
}
