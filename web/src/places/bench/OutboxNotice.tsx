import { Button } from 'antd';
import { instant } from '../../words/format';
import { outbox, useOutbox } from '../../api/outbox';

/** What waits on this device, and what the server would not take. */
export function OutboxNotice({ jobId }: { jobId: number }) {
  const { waiting, rejected, unreached, held } = useOutbox();
  const mine = waiting.filter((w) => w.jobId === jobId);
  const refused = rejected.filter((t) => t.waiting.jobId === jobId);
  return (
    <>
      {unreached && mine.length > 0 && (
        <p className="bench-caution" role="status">
          <strong>No network.</strong>{' '}
          {mine.length === 1 ? 'One thing is' : `${String(mine.length)} things are`} kept on this device and
          will be sent in order, once, when it is back. Work on.
        </p>
      )}
      {held !== null && mine.length > 0 && (
        <div className="bench-caution" role="alert">
          <strong>Nothing can be sent now.</strong> {held}{' '}
          {mine.length === 1 ? 'One thing is' : `${String(mine.length)} things are`} kept on this device until
          then.
          <br />
          <Button onClick={() => void outbox.send()}>Try again</Button>
        </div>
      )}
      {refused.map((t) => (
        <div key={t.seq} className="bench-caution" role="alert">
          <strong>{t.theirs.length > 0 ? 'Two people changed the same thing.' : 'Refused.'}</strong>
          {t.theirs.length > 0 ? (
            <dl className="both">
              <dt>Theirs</dt>
              {t.theirs.map((c) => (
                <dd key={c.madeAt + c.says}>
                  {c.says}{' '}
                  <span className="quiet small">
                    ({c.by ?? 'another device'}, {instant(c.madeAt)})
                  </span>
                </dd>
              ))}
              <dt>Yours</dt>
              <dd>{says(t.waiting.entry)}</dd>
            </dl>
          ) : (
            <p>
              {t.why} <span className="quiet">(yours: {says(t.waiting.entry)})</span>
            </p>
          )}
          <Button onClick={() => void outbox.discard(t)}>
            {t.theirs.length > 0 ? 'Leave theirs' : 'Understood'}
          </Button>{' '}
          {t.theirs.length > 0 && <Button onClick={() => void outbox.resubmit(t)}>Write mine over it</Button>}
        </div>
      ))}
    </>
  );
}

/** An entry in short, from its own members. */
function says(entry: object): string {
  const { kind, ...rest } = entry as Record<string, unknown>;
  const details = Object.values(rest).filter((v) => typeof v === 'string' || typeof v === 'number');
  return [String(kind).replaceAll('-', ' '), ...details.map(String)].join(', ');
}
