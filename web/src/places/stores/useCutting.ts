import { useQuery } from '@tanstack/react-query';
import { api, unwrap } from '../../api/client';
import { CUTTING_KEY } from '../../api/stores';

/** So many jobs ahead are cut for at most. */
const JOBS = 200;

/** The plan of cuts for the pads of all jobs ahead. It stays until it is made anew or booked: its number is what is booked. */
export function useCutting(kerfMm: number, wanted: boolean) {
  return useQuery({
    queryKey: [...CUTTING_KEY, kerfMm],
    queryFn: () =>
      unwrap(
        api.POST('/api/v1/stores/cutting', {
          body: { jobs: JOBS, assets: null, thicknessMm: null, kerfMm },
        }),
      ),
    enabled: wanted,
    staleTime: Infinity,
    retry: false,
  });
}
