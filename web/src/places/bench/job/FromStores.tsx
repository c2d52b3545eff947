import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { jobStores } from '../../../api/stores';
import { amount, lotWords, missingWords, mm } from '../../../words/amounts';
import type { BenchJob } from '../useBenchJob';

/** What a job takes off the shelf: lot and place of each thing, what is not there, pads that lie ready. */
export function FromStores({ job }: Pick<BenchJob, 'job'>) {
  const stores = useQuery(jobStores(job.id));
  if (!stores.data) return null;
  const { takes, missing, ready, unknown } = stores.data.job;
  if (takes.length + missing.length + ready.length === 0 && !unknown) return null;
  return (
    <section className="section" aria-label={t`From the stores`}>
      <div className="section-head">
        <h2>{t`From the stores`}</h2>
        <Link to="/stores" className="small">
          {t`Stores`}
        </Link>
      </div>
      {missing.map((m) => (
        <p key={`${m.kind} ${String(m.thicknessMm)}`} className="bench-caution">
          {t`Not there: ${missingWords(m)}. The job takes nothing until all of it is.`}
        </p>
      ))}
      <ul className="bare-list">
        {ready.map((r) => (
          <li
            key={r.thicknessMm}
          >{t`${r.count} pads of ${mm(r.thicknessMm)} lie ready, cut for this machine`}</li>
        ))}
        {takes.map((take) => (
          <li key={`${take.kind} ${String(take.lot)} ${String(take.thicknessMm)}`}>
            <strong>{take.product}</strong>{' '}
            {take.pieces !== null ? t`for ${take.pieces} pads` : amount(take.amount, take.unit)}{' '}
            <Link to={`/stores/lots/${String(take.lot)}`} className="quiet">
              {lotWords({ id: take.lot, batch: take.batch, place: take.place })}
            </Link>
          </li>
        ))}
      </ul>
      {unknown && (
        <p className="quiet small">
          {t`Nobody noted which pads this model takes: measure the old ones, and its notes keep them.`}
        </p>
      )}
    </section>
  );
}
