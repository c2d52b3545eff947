import { plural, t } from '@lingui/core/macro';
import { Button } from 'antd';
import type { Schemas } from '../../api/client';
import { money, tenths, whole } from '../../words/format';

const WIDTH = 360,
  HEIGHT = 150,
  LEFT = 46,
  BOTTOM = 24,
  TOP = 10;

/** Less saved than this is within what nobody knows of the costs. */
const WORTH_SHARE = 0.05;

/** What changing the fans of a model at an age costs, against running them until they fail. */
export function FanCurve({
  fans,
  currency,
  onTake,
}: {
  fans: Schemas['FanLivesAnswer'];
  currency: string;
  onTake: () => void;
}) {
  const most = Math.min(Math.max(...fans.curve.map((p) => p.cost)), 2.5 * fans.costOfFailure);
  const last = fans.curve[fans.curve.length - 1]!.months;
  const x = (months: number) => LEFT + (months / last) * (WIDTH - LEFT - 8);
  const y = (cost: number) => TOP + (1 - Math.min(cost, most) / most) * (HEIGHT - TOP - BOTTOM);
  const line = fans.curve
    .filter((p) => p.cost <= most)
    .map((p, i) => `${i === 0 ? 'M' : 'L'}${x(p.months).toFixed(1)} ${y(p.cost).toFixed(1)}`)
    .join('');
  const saves = typeof fans.costAtBest === 'number' ? 1 - fans.costAtBest / fans.costOfFailure : 0;
  const failed = fans.failures - fans.unsaid;
  const changes = [
    failed > 0 && plural(failed, { one: '# fan had failed', other: '# fans had failed' }),
    fans.unsaid > 0 &&
      plural(fans.unsaid, {
        one: '# fan was changed and nobody said why',
        other: '# fans were changed and nobody said why',
      }),
    fans.inTime > 0 && plural(fans.inTime, { one: '# was changed in time', other: '# were changed in time' }),
  ]
    .filter(Boolean)
    .join(', ');
  const wear = t`${changes}, ${plural(fans.running, { one: '# runs', other: '# run' })}: a mean life of ${tenths(fans.meanMonths)} months, shape ${tenths(fans.shape)} (${tenths(fans.shapeLow)} to ${tenths(fans.shapeHigh)}).`;
  return (
    <section className="apart" aria-label={t`Fans of ${fans.model}`}>
      <h3>{t`Fans of ${fans.model}`}</h3>
      <p>
        <strong>
          {typeof fans.bestMonths !== 'number'
            ? t`Run them until they fail: changing them earlier saves nothing.`
            : saves < WORTH_SHARE
              ? t`Run them until they fail: changing them in time saves ${whole(saves * 100)} % at most.`
              : t`Changed at ${whole(fans.bestMonths)} months they cost ${whole(saves * 100)} % less than run until they fail.`}
        </strong>{' '}
        <span className="quiet">
          {wear} {fans.shapeLow <= 1 && t`Whether they wear out, or fail by chance, is not certain yet.`}
        </span>
      </p>
      <svg
        viewBox={`0 0 ${String(WIDTH)} ${String(HEIGHT)}`}
        width={WIDTH}
        style={{ maxWidth: '100%' }}
        role="img"
        aria-label={t`Cost a month by the age at which a fan is changed`}
        className="figures rules-curve"
      >
        <path
          d={`M${String(LEFT)} ${String(TOP)}V${String(HEIGHT - BOTTOM)}H${String(WIDTH)}`}
          className="axis"
        />
        <path
          d={`M${String(LEFT)} ${y(fans.costOfFailure).toFixed(1)}H${String(WIDTH - 8)}`}
          className="failure"
        />
        <path d={line} className="cost" />
        {typeof fans.bestMonths === 'number' && typeof fans.costAtBest === 'number' && (
          <circle cx={x(fans.bestMonths)} cy={y(fans.costAtBest)} r={4.5} className="best" />
        )}
        <text x={LEFT - 6} y={y(fans.costOfFailure) + 4} textAnchor="end">
          {tenths(fans.costOfFailure)}
        </text>
        <text x={LEFT - 6} y={HEIGHT - BOTTOM + 4} textAnchor="end">
          0
        </text>
        {[0.5, 1].map((share) => (
          <text key={share} x={x(last * share)} y={HEIGHT - 7} textAnchor={share === 1 ? 'end' : 'middle'}>
            {t`${whole(last * share)} months`}
          </text>
        ))}
      </svg>
      <p className="quiet small">
        {t`${currency} a month and machine, by the age at which a fan is changed; the dashed line is running them until they fail. A planned change costs ${money(fans.planned, currency)}, one after a failure ${money(fans.atFailure, currency)}.`}{' '}
        {fans.unsaid > 0 &&
          t`Changes of which nobody said why are taken for failures, so lives are told rather too short.`}
      </p>
      {typeof fans.bestMonths === 'number' && saves >= WORTH_SHARE && (
        <Button onClick={onTake}>{t`Change them at ${whole(fans.bestMonths)} months`}</Button>
      )}
    </section>
  );
}
