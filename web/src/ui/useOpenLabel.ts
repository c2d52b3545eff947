import { useNavigate } from 'react-router';
import { api, unwrap } from '../api/client';

/** Opens what a label names: the machine, or the job in hand on it. Throws the server's refusal where it names none. */
export function useOpenLabel(): (label: string) => Promise<void> {
  const navigate = useNavigate();
  return async (label) => {
    const found = await unwrap(api.GET('/api/v1/scan', { params: { query: { text: label } } }));
    await navigate(
      found.job === null ? `/machines/${encodeURIComponent(found.asset)}` : `/bench/${String(found.job)}`,
    );
  };
}
