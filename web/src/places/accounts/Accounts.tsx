import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { useSession } from '../../api/session';
import { PlainTable } from '../../ui/PlainTable';
import { Refusal } from '../../ui/Refusal';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { instant } from '../../words/format';
import { word } from '../../words/word';
import { EditAccount } from './EditAccount';
import { GivenLink } from './GivenLink';
import { Keys } from './Keys';

type Account = Schemas['AccountAnswer'];

/** Who may sign in, and what they may. */
export function Accounts() {
  usePageTitle(t`Accounts`);
  const solo = useSession()?.solo === true;
  const answer = useQuery({
    queryKey: ['accounts'],
    queryFn: () => unwrap(api.GET('/api/v1/accounts')),
  });
  const [editing, setEditing] = useState<Account | 'new' | null>(null);
  const [link, setLink] = useState<{ account: string; given: Schemas['LinkGiven'] } | null>(null);
  const giveLink = useWrite((code: string) =>
    unwrap(api.POST('/api/v1/accounts/{code}/link', { params: { path: { code } } })),
  );
  const signOut = useWrite((code: string) =>
    unwrap(api.POST('/api/v1/accounts/{code}/sign-out', { params: { path: { code } } })),
  );
  if (!answer.data) return <Unready of={[answer]} title={t`Accounts`} />;
  const { accounts, roles } = answer.data;
  const error = giveLink.error ?? signOut.error;
  return (
    <div className="page broad">
      <p className="quiet no-gap">
        <Link to="/rules">{t`House rules`}</Link>
      </p>
      <h1>
        {accounts.length === 0
          ? t`Nobody has an account.`
          : plural(accounts.length, {
              one: 'One person has an account.',
              other: '# people have an account.',
            })}
      </h1>
      <p className="quiet">
        {solo
          ? t`The program was started for one person at this machine: nobody has to sign in, and no other device reaches it. Started with ./run.sh --house, it asks.`
          : t`Each comes in by a link that works once. Who does what stands in the log book under their name.`}
      </p>
      {error && <Refusal error={error} />}
      <div className="button-row next-heading">
        <Button type="primary" onClick={() => setEditing('new')}>{t`Let somebody in …`}</Button>
      </div>
      {accounts.length > 0 && (
        <PlainTable
          head={
            <>
              <th>{t`Name`}</th>
              <th>{t`Role`}</th>
              <th>{t`Where`}</th>
              <th>{t`State`}</th>
              <th aria-label={t`Change`} />
            </>
          }
        >
          {accounts.map((a) => (
            <tr key={a.account}>
              <td>
                <span translate="no">{a.name}</span>{' '}
                <span className="quiet" translate="no">
                  {a.account}
                </span>
              </td>
              <td>{word(a.role)}</td>
              <td translate="no">{where(a)}</td>
              <td>{state(a)}</td>
              <td>
                <span className="button-row">
                  <Button size="small" onClick={() => setEditing(a)}>{t`Change …`}</Button>
                  <Button
                    size="small"
                    onClick={() =>
                      giveLink.mutate(a.account, {
                        onSuccess: (given) => setLink({ account: a.name, given }),
                      })
                    }
                  >{t`New link …`}</Button>
                  {a.browsers > 0 && (
                    <Button size="small" onClick={() => signOut.mutate(a.account)}>
                      {t`Sign out everywhere`}
                    </Button>
                  )}
                </span>
              </td>
            </tr>
          ))}
        </PlainTable>
      )}
      <h2 className="next-heading">{t`What each role may`}</h2>
      <PlainTable
        head={
          <>
            <th>{t`Role`}</th>
            <th>{t`May`}</th>
          </>
        }
      >
        {roles.map((r) => (
          <tr key={r.role}>
            <td>{word(r.role)}</td>
            <td>{r.rights.map((right) => RIGHTS[right]).join('; ')}</td>
          </tr>
        ))}
      </PlainTable>
      {!solo && <Keys />}
      <p className="next-heading">
        <Link to="/rules/audit?kinds=sign-in,account,refused">
          {t`Who signed in, who was refused, and what became of accounts`}
        </Link>
      </p>
      {editing !== null && (
        <EditAccount
          account={editing === 'new' ? null : editing}
          onAdded={(account, given) => setLink({ account, given })}
          onClose={() => setEditing(null)}
        />
      )}
      {link && <GivenLink name={link.account} link={link.given} onClose={() => setLink(null)} />}
    </div>
  );
}

/** What a right lets somebody do. */
const RIGHTS: Readonly<Record<Schemas['Right'], string>> = {
  look: t`see everything but accounts`,
  'look-at-own': t`see the machines that are theirs`,
  work: t`work at the bench, report, note readings, take from the shelf`,
  plan: t`plan the weeks, campaigns, what is set aside`,
  'keep-stores': t`keep products, lots and prices`,
  'keep-machines': t`change machines and zones, take in and undo files`,
  'keep-rules': t`change the house rules`,
  'keep-people': t`keep who works here and who is told what`,
  'keep-house': t`let people in, make backups and lay them back`,
};

const where = (a: Account): string =>
  a.role === 'owner' ? a.machines.join(', ') : a.sites.length > 0 ? a.sites.join(', ') : t`everywhere`;

function state(a: Account): string {
  if (a.suspended) return t`suspended`;
  if (!a.hasPassword)
    return a.linkUntil === null
      ? t`has not come in; the link has ended`
      : t`has a link until ${instant(a.linkUntil)}`;
  const seen = a.seenAt === null ? t`signed in nowhere` : t`last at work ${instant(a.seenAt)}`;
  return a.oneTimeCodes ? t`${seen}; with a second factor` : seen;
}
