import { t } from '@lingui/core/macro';
import { whole } from '../../words/format';

/** Where the evidence lies between stopping and going on: a mark on a line whose ends decide. */
export function Evidence({ evidence }: { evidence: number }) {
  const at = Math.max(-1, Math.min(1, evidence));
  const share = whole(Math.abs(at) * 100);
  return (
    <div className="campaign-evidence">
      <span>{t`stop`}</span>
      <svg
        viewBox="-100 -10 200 20"
        role="img"
        aria-label={
          at >= 0
            ? t`Evidence: ${share} % of the way to going on`
            : t`Evidence: ${share} % of the way to stopping`
        }
      >
        <line className="campaign-line" x1={-96} x2={96} y1={0} y2={0} />
        {[-96, 0, 96].map((x) => (
          <line key={x} className="campaign-line" x1={x} x2={x} y1={-5} y2={5} />
        ))}
        <circle className="campaign-mark" cx={at * 96} cy={0} r={4} />
      </svg>
      <span>{t`go on`}</span>
    </div>
  );
}
