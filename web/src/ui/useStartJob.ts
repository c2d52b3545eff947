import { useNavigate } from 'react-router';
import { api, ProblemError, unwrap, type Schemas, type ServiceLevel } from '../api/client';
import { useWrite } from '../api/queries';
import { deviceName } from '../api/outbox';

export interface NewJob {
  asset: string;
  level: ServiceLevel;
  fan?: string | null;
  warrantyAnswer?: string | null;
  /** What it came in for; absent where nobody was asked yet. */
  complaint?: Schemas['ComplaintRecorded'] | null;
}

/** Starts a job and goes to it; where something has to be said first, goes to where it can be said. */
export function useStartJob() {
  const navigate = useNavigate();
  const write = useWrite(async ({ asset, level, fan = null, warrantyAnswer = null, complaint }: NewJob) => {
    const questions = `/bench/new?asset=${encodeURIComponent(asset)}&level=${level}`;
    if (level === 'fan-swap' && !fan && !location.pathname.startsWith('/bench/new')) {
      await navigate(questions);
      return;
    }
    try {
      if (complaint === undefined && (await hasReports(asset))) {
        await navigate(questions);
        return;
      }
      const by = localStorage.getItem('pyrometron.name');
      const body = {
        asset,
        level,
        fan,
        warrantyAnswer,
        device: deviceName(),
        by,
        complaint: complaint ?? null,
      };
      const job = await unwrap(api.POST('/api/v1/jobs', { body }));
      await navigate(`/bench/${String(job.id)}`);
    } catch (error) {
      if (!(error instanceof ProblemError && error.problem.rule === 'warranty')) throw error;
      await navigate(questions);
    }
  });
  return write;
}

/** Whether a report of its user stands: then the job is asked whether it came in for that. */
async function hasReports(tag: string): Promise<boolean> {
  const machine = await unwrap(api.GET('/api/v1/assets/{tag}', { params: { path: { tag } } }));
  return machine.symptoms.some((s) => s.withdrawnReason === null);
}

export type StartJob = ReturnType<typeof useStartJob>;
