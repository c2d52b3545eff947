import { t } from '@lingui/core/macro';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import type { PlannedJob } from './board';

/** The way to the bench: the job that is there, or one to start. */
export function BenchLink({ step, job }: { step: Schemas['WorkStep']; job: PlannedJob }) {
  const follows = /^(?:after-run|second-look)-(\d+)$/.exec(job.id)?.[1];
  if (follows) return <Link className="alone" to={`/bench/${follows}`}>{t`To its job at the bench`}</Link>;
  if (job.bench)
    return (
      <Link className="alone" to={`/bench/${String(job.bench.id)}`}>
        {job.bench.state === 'open' ? t`At the bench now` : t`Done at the bench`}
      </Link>
    );
  if (job.kind === 'deciding-run')
    return (
      <Link className="alone" to={`/bench/new?asset=${encodeURIComponent(step.asset)}&level=inspect`}>
        {t`Measure at the bench`}
      </Link>
    );
  if (!step.level) return null;
  return (
    <Link className="alone" to={`/bench/new?asset=${encodeURIComponent(step.asset)}&level=${step.level}`}>
      {t`Start at the bench`}
    </Link>
  );
}
