import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { jobStores } from '../../../api/stores';
import { amount, lotWords, missingWords, mm } from '../../../words/amounts';
import type { BenchJob } from '../useBenchJob';

/** What a job needs and the shelf does not hold: known before the machine is opened. */
export function NotThere({ job }: Pick<BenchJob, 'job'>) {
  const missing = useQuery(jobStores(job.id)).data?.job.missing ?? [];
  return missing.length === 0 ? null : (
    <p className="bench-caution" role="status">
      {t`Not in the stores: ${missing.map(missingWords).join(', ')}. Nothing is put aside for this job until all of it is.`}
    </p>
  );
}

/** What a job takes off the shelf: lot and place of each thing, pads that lie ready. */
export function FromStores({ job }: Pick<BenchJob, 'job'>) {
  const stores = useQuery(jobStores(job.id));
  if (!stores.data) return null;
  const { takes, ready, unknown } = stores.data.job;
  if (takes.length + ready.length === 0 && !unknown) return null;
  return (
    <section className="section" aria-label={t`From the stores`}>
      <div className="section-head">
        <h2>{t`From the stores`}</h2>
        <Link to="/stores" className="small">
          {t`Stores`}
        </Link>
      </div>
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
