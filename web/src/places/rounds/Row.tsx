import type { QueueItem } from '../../api/client';
import { count, day, minutes } from '../../words/format';
import { CAUSE_WORDS, CauseMark } from '../../ui/marks/CauseMark';
import { HeadroomStrip } from '../../ui/marks/HeadroomStrip';

/** One machine of the queue: what it is, its headroom, why, and what to do by when. */
export function Row({ item, stripWidth }: { item: QueueItem; stripWidth: number }) {
  return (
    <>
      <span className="rounds-what">
        <span className="figures" style={{ fontWeight: 700, fontSize: 13 }}>
          {item.asset}
        </span>
        <span className="small quiet rounds-one" style={{ display: 'block' }}>
          {item.model}
        </span>
        <span className="small quiet rounds-one" style={{ display: 'block' }}>
          {item.zoneName}
        </span>
      </span>
      <span className="rounds-strip">
        {item.strip ? (
          <HeadroomStrip strip={item.strip} width={stripWidth} />
        ) : (
          <span className="small quiet">not measured{item.measure && ': a run here would tell most'}</span>
        )}
        {item.silence && (
          <span className="small rounds-one" style={{ display: 'block' }}>
            no readings for {count(item.silence.days, 'day')}
            {item.silence.reporting > 0 &&
              `, ${count(item.silence.reporting, 'neighbour goes', 'neighbours go')} on`}
          </span>
        )}
        {item.measuredAt && item.measuredBy === 'run' && (
          <span className="small quiet rounds-one" style={{ display: 'block' }}>
            run of {day(item.measuredAt.slice(0, 10))}
          </span>
        )}
      </span>
      <span className="rounds-why" style={{ display: 'flex', gap: 9, alignItems: 'flex-start' }}>
        <CauseMark cause={item.cause} />
        <span className="rounds-clip">
          {item.cause !== 'none' && <strong>{CAUSE_WORDS[item.cause]}. </strong>}
          {item.setAside
            ? `Set aside until ${day(item.setAside.until)}: ${item.setAside.reason}`
            : item.reason}
        </span>
      </span>
      <span className="rounds-work">
        {item.job && item.job.state === 'open' ? (
          <strong>at the bench</strong>
        ) : item.job ? (
          <strong>waiting for proof</strong>
        ) : item.service ? (
          <>
            <strong>{item.service}</strong>
            <span className="small quiet" style={{ display: 'block' }}>
              {item.minutes !== null && minutes(item.minutes)}
              {dateOf(item) && ` · ${dateOf(item)}`}
            </span>
            {item.underWarranty && (
              <span className="small quiet" style={{ display: 'block' }}>
                {item.warranty
                  ? item.warranty.wait
                    ? `wait until ${day(item.warranty.openableFrom)}`
                    : `under warranty until ${day(item.warranty.until)}`
                  : 'under warranty'}
              </span>
            )}
          </>
        ) : (
          <span className="small quiet">{dateOf(item) || '–'}</span>
        )}
      </span>
    </>
  );
}

function dateOf(item: QueueItem): string {
  if (item.urgency === 'now') return 'today';
  const by = item.actionDate ?? (item.urgency === 'soon' ? item.due : null);
  return by ? day(by) : '';
}
