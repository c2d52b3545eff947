import { t } from '@lingui/core/macro';
import { Button, Modal } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { useSent, useTold } from '../../api/notices';
import { useWrite } from '../../api/queries';
import { Refusal } from '../../ui/Refusal';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { NOTICE_KINDS } from '../../words/notices';
import { EditTold, timeWords } from './EditTold';
import { Sent } from './Sent';
import { Took } from './Took';
import './notices.css';

type Person = Schemas['SubscriptionAnswer'];

/** Who is told of what is new, by mail or by a call of their program, and what was sent. */
export function WhoIsTold() {
  usePageTitle(t`Who is told, and how`);
  const told = useTold();
  const sent = useSent();
  const [editing, setEditing] = useState<Person | null>(null);
  const [secret, setSecret] = useState<string | null>(null);
  const test = useWrite(({ code, channel }: { code: string; channel: Schemas['NoticeChannel'] }) =>
    unwrap(api.POST('/api/v1/people/{code}/notices/test', { params: { path: { code } }, body: { channel } })),
  );
  const give = useWrite((code: string) =>
    unwrap(api.POST('/api/v1/people/{code}/notices/secret', { params: { path: { code } } })),
  );
  if (!told.data || !sent.data) return <Unready of={[told, sent]} title={t`Who is told, and how`} />;
  const { people, mailServer, standIns } = told.data;
  const error = test.error ?? give.error;
  return (
    <div className="page broad">
      <p className="quiet no-gap">
        <Link to="/notices">{t`What is new`}</Link>
      </p>
      <h1>{t`Who is told, and how`}</h1>
      <p className="quiet">
        {standIns
          ? t`In the demo nothing leaves this machine: stand-ins take the mails and calls, and show them below.`
          : mailServer === null
            ? t`No mail server is set, so no mail is sent. Start the program with Mail__Host and Mail__From in its environment.`
            : t`Mail goes by ${mailServer}.`}
      </p>
      {error && <Refusal error={error} />}
      {people.length === 0 && (
        <p>
          {t`Nobody is on the list yet.`} <Link to="/weeks/people">{t`Add people`}</Link>
        </p>
      )}
      {people.map((p) => (
        <section key={p.person} className="told ruled" aria-label={p.name}>
          <div>
            <h2>{p.name}</h2>
            <p className="no-gap">{t`in the program: ${kindWords(p.shown)}`}</p>
            {p.mailTo && (
              <p className="no-gap">{t`by mail to ${p.mailTo} at ${timeWords(p.mailAt)}: ${kindWords(p.mailed)}`}</p>
            )}
            {p.webhookUrl && (
              <p className="no-gap">
                {t`by a call of ${p.webhookUrl}: ${kindWords(p.called)}`}
                {!p.hasSecret && ` ${t`It has no secret yet and is not called.`}`}
              </p>
            )}
            {p.quietFrom && p.quietTo && (
              <p className="no-gap small quiet">{t`nothing is sent from ${timeWords(p.quietFrom)} to ${timeWords(p.quietTo)}`}</p>
            )}
          </div>
          <div className="button-row">
            {p.mailTo && (
              <Button
                loading={test.isPending}
                onClick={() => test.mutate({ code: p.person, channel: 'mail' })}
              >{t`Try the mail`}</Button>
            )}
            {p.webhookUrl && p.hasSecret && (
              <Button
                loading={test.isPending}
                onClick={() => test.mutate({ code: p.person, channel: 'webhook' })}
              >{t`Try the call`}</Button>
            )}
            {p.webhookUrl && (
              <Button
                loading={give.isPending}
                onClick={() =>
                  void give.mutateAsync(p.person).then(
                    (given) => setSecret(given.secret),
                    () => undefined,
                  )
                }
              >
                {p.hasSecret ? t`New secret` : t`Make a secret`}
              </Button>
            )}
            <Button onClick={() => setEditing(p)}>{t`Edit`}</Button>
          </div>
        </section>
      ))}
      <Sent deliveries={sent.data.deliveries} names={new Map(people.map((p) => [p.person, p.name]))} />
      {standIns && <Took />}
      {editing && <EditTold person={editing} onClose={() => setEditing(null)} />}
      <Modal
        title={t`The secret`}
        open={secret !== null}
        onCancel={() => setSecret(null)}
        footer={<Button type="primary" onClick={() => setSecret(null)}>{t`I have copied it`}</Button>}
      >
        <p>{t`Give it to the program that is called. It is shown this once; the one before is worth nothing from now on.`}</p>
        <p className="figures told-secret">{secret}</p>
        <p className="quiet small">{t`Each call bears webhook-id, webhook-timestamp and webhook-signature: the HMAC-SHA-256 of "id.timestamp.body" with this secret, as the open Standard Webhooks specification has it.`}</p>
      </Modal>
    </div>
  );
}

const ALL = Object.keys(NOTICE_KINDS).length;

function kindWords(kinds: readonly Schemas['NoticeKind'][]): string {
  if (kinds.length === ALL) return t`all that is new`;
  return kinds.length === 0 ? t`nothing` : kinds.map((k) => NOTICE_KINDS[k]).join(', ');
}
