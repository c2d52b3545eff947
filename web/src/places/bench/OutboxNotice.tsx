import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Button } from 'antd';
import { instant } from '../../words/format';
import { outbox, useOutbox } from '../../api/outbox';
import { say } from '../../words/message';
import { word } from '../../words/word';

/** What waits on this device, and what the server would not take. */
export function OutboxNotice({ jobId }: { jobId: number }) {
  const { waiting, rejected, unreached, held } = useOutbox();
  const mine = waiting.filter((w) => w.jobId === jobId);
  const refused = rejected.filter((t) => t.waiting.jobId === jobId);
  return (
    <>
      {unreached && mine.length > 0 && (
        <p className="bench-caution" role="status">
          <Trans>
            <strong>No network.</strong> {plural(mine.length, { one: 'One thing is', other: '# things are' })}{' '}
            kept on this device and will be sent in order, once, when it is back. Work on.
          </Trans>
        </p>
      )}
      {held !== null && mine.length > 0 && (
        <div className="bench-caution" role="alert">
          <Trans>
            <strong>Nothing can be sent now.</strong> {held}{' '}
            {plural(mine.length, { one: 'One thing is', other: '# things are' })} kept on this device until
            then.
          </Trans>
          <br />
          <Button onClick={() => void outbox.send()}>{t`Try again`}</Button>
        </div>
      )}
      {refused.map((turned) => (
        <div key={turned.seq} className="bench-caution" role="alert">
          <strong>{turned.theirs.length > 0 ? t`Two people changed the same thing.` : t`Refused.`}</strong>
          {turned.theirs.length > 0 ? (
            <dl className="both">
              <dt>{t`Theirs`}</dt>
              {turned.theirs.map((c) => (
                <dd key={c.madeAt + c.says}>
                  {c.message ? say(c.message) : c.says}{' '}
                  <span className="quiet small">
                    ({c.by ?? t`another device`}, {instant(c.madeAt)})
                  </span>
                </dd>
              ))}
              <dt>{t`Yours`}</dt>
              <dd>{says(turned.waiting.entry)}</dd>
            </dl>
          ) : (
            <p>
              {turned.says ? say(turned.says) : turned.why}{' '}
              <span className="quiet">{t`(yours: ${says(turned.waiting.entry)})`}</span>
            </p>
          )}
          <Button onClick={() => void outbox.discard(turned)}>
            {turned.theirs.length > 0 ? t`Leave theirs` : t`Understood`}
          </Button>{' '}
          {turned.theirs.length > 0 && (
            <Button onClick={() => void outbox.resubmit(turned)}>{t`Write mine over it`}</Button>
          )}
        </div>
      ))}
    </>
  );
}

/** An entry in short, from its own members. */
function says(entry: object): string {
  const { kind, ...rest } = entry as Record<string, unknown>;
  const details = Object.values(rest).filter((v) => typeof v === 'string' || typeof v === 'number');
  return [word(String(kind)), ...details.map(String)].join(', ');
}
