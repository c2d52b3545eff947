import { plural, t } from '@lingui/core/macro';
import { useStandIns } from '../../api/notices';

/** What the demo's stand-ins for a mail server and a program took. */
export function Took() {
  const took = useStandIns(true);
  if (!took.data) return null;
  const { mails, calls } = took.data;
  return (
    <>
      <h2 className="next-heading">{t`What the stand-ins took`}</h2>
      <p className="quiet">
        {t`Since the program was started: ${plural(mails.length, { one: '# mail', other: '# mails' })}, ${plural(calls.length, { one: '# call', other: '# calls' })}.`}
      </p>
      {mails.slice(0, 3).map((mail) => (
        <pre key={mail} className="told-took" aria-label={t`A mail`}>
          <code>{mail}</code>
        </pre>
      ))}
      {calls.slice(0, 3).map((call, i) => (
        <pre key={`${call.id}-${String(i)}`} className="told-took" aria-label={t`A call`}>
          <code>{call.body}</code>
        </pre>
      ))}
    </>
  );
}
