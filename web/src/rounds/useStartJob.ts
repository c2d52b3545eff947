import { App } from 'antd';
import { useNavigate } from 'react-router';
import { api, unwrap, type ServiceLevel } from '../api/client';
import { useWrite } from '../api/queries';

/** Starts a job and goes to it. */
export function useStartJob() {
  const navigate = useNavigate();
  const { message } = App.useApp();
  const write = useWrite(async (input: { asset: string; level: ServiceLevel }) => {
    try {
      const job = await unwrap(api.POST('/api/v1/jobs', { body: input }));
      await navigate(`/bench/${String(job.id)}`);
    } catch (error) {
      message.warning(error instanceof Error ? error.message : String(error), 6);
      throw error;
    }
  });
  return write;
}

export type StartJob = ReturnType<typeof useStartJob>;
