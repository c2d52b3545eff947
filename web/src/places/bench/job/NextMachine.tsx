import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Link } from 'react-router';
import { useMachine, useQueue } from '../../../api/queries';
import type { BenchJob } from '../useBenchJob';
import { levelName } from '../../../words/work';

/** Where to go on: the most pressing machine of the same zone, else of all. */
export function NextMachine({ job }: Pick<BenchJob, 'job'>) {
  const queue = useQueue();
  const zone = useMachine(job.asset).data?.zone;
  const waiting = (queue.data?.items ?? []).filter(
    (i) => i.asset !== job.asset && i.service !== null && (i.urgency === 'now' || i.urgency === 'next'),
  );
  const next = waiting.find((i) => i.zone === zone) ?? waiting[0];
  if (!next) return null;
  return (
    <p>
      <Trans>
        Next{next.zone === zone ? t` in the same zone` : t`, in ${next.zoneName}`}:{' '}
        <Link to={`/machines/${encodeURIComponent(next.asset)}`}>
          {next.asset}, {next.service && levelName(next.service)}
        </Link>
      </Trans>
    </p>
  );
}
