import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { CAUSE_WORDS, CauseMark } from '../../ui/marks/CauseMark';
import { PlainTable } from '../../ui/PlainTable';

type Found = Schemas['FoundAnswer'];

/** What was predicted against what was seen on opening. */
export function Causes({ causes }: { causes: readonly Found[] }) {
  const predicted = [...new Set(causes.map((c) => c.predicted))];
  return (
    <section className="section">
      <div className="section-head">
        <h2>{t`Predicted, and found on opening`}</h2>
      </div>
      <PlainTable
        head={
          <>
            <th>{t`predicted`}</th>
            <th>{t`found, in so many jobs`}</th>
          </>
        }
      >
        {predicted.map((p) => (
          <tr key={p}>
            <td>
              <span className="proof-cause">
                <CauseMark cause={p} /> {CAUSE_WORDS[p]}
              </span>
            </td>
            <td>
              {causes
                .filter((c) => c.predicted === p)
                .map((c) => (
                  <span key={c.found} className={c.found === p ? 'proof-found same' : 'proof-found'}>
                    {c.found === 'none' ? t`nothing` : CAUSE_WORDS[c.found]} {c.jobs}
                  </span>
                ))}
            </td>
          </tr>
        ))}
      </PlainTable>
    </section>
  );
}
