import { plural, t } from '@lingui/core/macro';
import type { QueueItem } from '../../api/client';
import { day } from '../../words/format';
import { say } from '../../words/message';
import { causeShown, workOf } from '../../words/work';
import { CAUSE_WORDS, CauseMark } from '../../ui/marks/CauseMark';
import { HeadroomStrip } from '../../ui/marks/HeadroomStrip';

/** One machine of the queue: what it is, its headroom, why, and what to do by when. */
export function Row({ item, asOf, stripWidth }: { item: QueueItem; asOf: string; stripWidth: number }) {
  const work = workOf({ ...item, asOf: item.asOf ?? asOf });
  return (
    <>
      <span className="rounds-what">
        <span className="figures rounds-tag">{item.asset}</span>
        <span className="small quiet rounds-line rounds-one">{item.model}</span>
        <span className="small quiet rounds-line rounds-one">{item.zoneName}</span>
      </span>
      <span className="rounds-strip">
        {item.strip ? (
          <HeadroomStrip strip={item.strip} width={stripWidth} />
        ) : (
          <span className="small quiet">
            {t`not measured`}
            {item.measure && t`: a run here would tell most`}
          </span>
        )}
        {item.silence && (
          <span className="small rounds-line rounds-one">
            {t`no readings for ${plural(item.silence.days, { one: '# day', other: '# days' })}`}
            {item.silence.reporting > 0 &&
              t`, ${plural(item.silence.reporting, { one: '# neighbour goes', other: '# neighbours go' })} on`}
          </span>
        )}
        {item.measuredAt && item.measuredBy === 'run' && (
          <span className="small quiet rounds-line rounds-one">
            {t`run of ${day(item.measuredAt.slice(0, 10))}`}
          </span>
        )}
      </span>
      <span className="rounds-why">
        <CauseMark cause={causeShown(item)} />
        <span className="rounds-clip">
          {causeShown(item) !== 'none' && <strong>{CAUSE_WORDS[causeShown(item)]}. </strong>}
          {item.setAside
            ? t`Set aside until ${day(item.setAside.until)}: ${item.setAside.reason}`
            : say(item.reasonMessage)}
        </span>
      </span>
      <span className="rounds-work">
        {item.job ? (
          <strong>{item.job.state === 'open' ? t`at the bench` : t`waiting for proof`}</strong>
        ) : (
          <>
            <strong>{work.what ?? ''}</strong>
            <span className="small quiet rounds-line">
              {[work.takes, work.when].filter(Boolean).join(' · ') || (work.what ? '' : '–')}
            </span>
            {work.what && item.underWarranty && (
              <span className="small quiet rounds-line">
                {item.warranty
                  ? item.warranty.wait
                    ? t`wait until ${day(item.warranty.openableFrom)}`
                    : t`under warranty until ${day(item.warranty.until)}`
                  : t`under warranty`}
              </span>
            )}
          </>
        )}
      </span>
    </>
  );
}
