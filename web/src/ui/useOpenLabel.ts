import { useNavigate } from 'react-router';
import { api, unwrap } from '../api/client';

/** Opens what a label names: the machine, the job in hand on it, or a lot of the stores. Throws the server's refusal where it names none. */
export function useOpenLabel(): (label: string) => Promise<void> {
  const navigate = useNavigate();
  return async (label) => {
    const found = await unwrap(api.GET('/api/v1/scan', { params: { query: { text: label } } }));
    if (found.lot !== null) return void navigate(`/stores/lots/${String(found.lot)}`);
    await navigate(
      found.job === null ? `/machines/${encodeURIComponent(found.asset)}` : `/bench/${String(found.job)}`,
    );
  };
}
