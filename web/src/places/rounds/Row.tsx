import type { QueueItem } from '../../api/client';
import { count, day } from '../../words/format';
import { say } from '../../words/message';
import { workOf } from '../../words/work';
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
          <span className="small quiet">not measured{item.measure && ': a run here would tell most'}</span>
        )}
        {item.silence && (
          <span className="small rounds-line rounds-one">
            no readings for {count(item.silence.days, 'day')}
            {item.silence.reporting > 0 &&
              `, ${count(item.silence.reporting, 'neighbour goes', 'neighbours go')} on`}
          </span>
        )}
        {item.measuredAt && item.measuredBy === 'run' && (
          <span className="small quiet rounds-line rounds-one">
            run of {day(item.measuredAt.slice(0, 10))}
          </span>
        )}
      </span>
      <span className="rounds-why">
        <CauseMark cause={item.cause} />
        <span className="rounds-clip">
          {item.cause !== 'none' && <strong>{CAUSE_WORDS[item.cause]}. </strong>}
          {item.setAside
            ? `Set aside until ${day(item.setAside.until)}: ${item.setAside.reason}`
            : say(item.reasonMessage)}
        </span>
      </span>
      <span className="rounds-work">
        {item.job ? (
          <strong>{item.job.state === 'open' ? 'at the bench' : 'waiting for proof'}</strong>
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
                    ? `wait until ${day(item.warranty.openableFrom)}`
                    : `under warranty until ${day(item.warranty.until)}`
                  : 'under warranty'}
              </span>
            )}
          </>
        )}
      </span>
    </>
  );
}
