import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useEffect } from 'react';
import { useMutation, useQuery } from '@tanstack/react-query';
import { api, unwrap } from '../../api/client';
import { Refusal } from '../../ui/Refusal';

/** While the demo is being laid it is asked after this often, ms. */
const POLL = 700;

/** Starts the demo beside one's own database, and goes there once it answers. */
export function OpenDemo() {
  const open = useMutation({ mutationFn: () => unwrap(api.POST('/api/v1/demo')) });
  const state = useQuery({
    queryKey: ['demo'],
    queryFn: () => unwrap(api.GET('/api/v1/demo')),
    enabled: open.isSuccess,
    refetchInterval: (query) => (query.state.data?.starting === false ? false : POLL),
  });
  const address = state.data?.address;
  useEffect(() => {
    if (address) window.location.assign(address);
  }, [address]);
  const problem = state.data?.problem;
  const busy = open.isPending || (open.isSuccess && !problem && !state.isError);
  return (
    <>
      <Button loading={busy} onClick={() => open.mutate()}>
        {t`Open the demo`}
      </Button>
      {busy && <span role="status">{t`The demo is being laid. That takes some ten seconds …`}</span>}
      {open.isError && <Refusal error={open.error} />}
      {state.isError && <Refusal error={state.error} />}
      {problem && <span role="alert">{problem}</span>}
    </>
  );
}
