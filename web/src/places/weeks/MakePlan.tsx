import { Button } from 'antd';
import { api, unwrap } from '../../api/client';
import { useWrite } from '../../api/queries';
import { useMay } from '../../api/session';
import { Refusal } from '../../ui/Refusal';

/** How long the solver may think, s: long enough for a few hundred jobs, short enough to wait for. */
const SECONDS = 10;

/** Plans from today on, in the background. */
export function MakePlan({
  today,
  busy,
  words,
  days = 14,
}: {
  today: string;
  busy: boolean;
  words: string;
  days?: number;
}) {
  const mayPlan = useMay('plan');
  const make = useWrite(() =>
    unwrap(api.POST('/api/v1/weeks/plan', { body: { start: today, days, seconds: SECONDS } })),
  );
  return (
    <>
      <Button
        type="primary"
        disabled={busy || !mayPlan}
        loading={make.isPending}
        onClick={() => make.mutate(undefined)}
      >
        {words}
      </Button>
      {make.isError && <Refusal error={make.error} />}
    </>
  );
}
