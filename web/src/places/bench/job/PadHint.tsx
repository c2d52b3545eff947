import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { api, unwrap } from '../../../api/client';
import { mm } from '../../../words/amounts';
import { say } from '../../../words/message';
import { PAD_CODES } from '../../../words/pads';

/** Which pad to lay at a place that was measured: the old pad as it comes off is as thick as the gap. */
export function PadHint({ place, measuredMm }: { place: string; measuredMm: number }) {
  const advice = useQuery({
    queryKey: ['which-pad', place, measuredMm],
    queryFn: () =>
      unwrap(
        api.POST('/api/v1/materials/pads', {
          body: {
            places: [
              {
                name: place,
                by: 'imprint',
                measuredMm,
                widthMm: null,
                heightMm: null,
                watts: null,
                oldConductivity: null,
              },
            ],
          },
        }),
      ),
    staleTime: Infinity,
    retry: false,
  });
  const a = advice.data?.places[0];
  if (!a) return null;
  return (
    <details className="small quiet">
      <summary>{a.takeMm !== null ? t`lay ${mm(a.takeMm)}` : PAD_CODES[a.code]}</summary>
      {say(a.says)}
    </details>
  );
}
