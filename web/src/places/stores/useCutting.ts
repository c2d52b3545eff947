import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { api, unwrap } from '../../api/client';
import { CUTTING_KEY } from '../../api/stores';

/** So many jobs ahead are cut for at most. */
const JOBS = 200;

/** What is cut for, and what the knife takes; it stands in the address, so that the paper shows the same plan. */
export function useCutFor() {
  const [params, setParams] = useSearchParams();
  const assets = params.getAll('cut');
  const asked = Number(params.get('kerf'));
  const kerfMm = asked > 0 && asked <= 5 ? asked : 0;
  const search = (next: { assets?: readonly string[]; kerfMm?: number }) => {
    const { assets: tags = assets, kerfMm: kerf = kerfMm } = next;
    return new URLSearchParams([
      ...tags.map((tag) => ['cut', tag]),
      ...(kerf > 0 ? [['kerf', String(kerf)]] : []),
    ]);
  };
  return {
    assets,
    kerfMm,
    search: search({}).toString(),
    change: (next: { assets?: readonly string[]; kerfMm?: number }) =>
      setParams(search(next), { replace: true }),
  };
}

/** The plan of cuts for the pads of jobs ahead. It stays until it is made anew or booked: its number is what is booked. */
export function useCutting(assets: readonly string[], kerfMm: number) {
  return useQuery({
    queryKey: [...CUTTING_KEY, assets, kerfMm],
    queryFn: () =>
      unwrap(
        api.POST('/api/v1/stores/cutting', {
          body: {
            jobs: JOBS,
            assets: assets.length > 0 ? [...assets] : null,
            thicknessMm: null,
            kerfMm,
          },
        }),
      ),
    staleTime: Infinity,
    retry: false,
  });
}
