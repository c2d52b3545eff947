import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Button, Form, Input } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, unwrap } from '../../api/client';
import { useWrite } from '../../api/queries';
import { useSession, useSignOut } from '../../api/session';
import { EditDialog, needed } from '../../ui/EditDialog';
import { PlainTable } from '../../ui/PlainTable';
import { Refusal } from '../../ui/Refusal';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { shortDevice } from '../../words/device';
import { instant } from '../../words/format';
import { normalPassword } from '../../words/password';
import { word } from '../../words/word';
import { SetUpCodes } from './SetUpCodes';

/** One's own account: password, one-time codes, browsers that are signed in. */
export function Account() {
  usePageTitle(t`Your account`);
  const session = useSession();
  const own = useQuery({
    queryKey: ['account'],
    queryFn: () => unwrap(api.GET('/api/v1/account')),
    enabled: session?.solo !== true,
  });
  const signOut = useSignOut();
  const [open, setOpen] = useState<'password' | 'codes' | 'end-codes' | null>(null);
  const leave = useWrite(signOut);
  const endBrowser = useWrite((id: number) =>
    unwrap(api.DELETE('/api/v1/account/browsers/{id}', { params: { path: { id } } })),
  );
  const endOthers = useWrite(() => unwrap(api.POST('/api/v1/account/browsers/end-others')));
  const changePassword = useWrite((fields: { old: string; new: string }) =>
    unwrap(
      api.PUT('/api/v1/account/password', {
        body: { old: normalPassword(fields.old), new: normalPassword(fields.new) },
      }),
    ),
  );
  const endCodes = useWrite((fields: { password: string }) =>
    unwrap(api.POST('/api/v1/account/codes/end', { body: { password: normalPassword(fields.password) } })),
  );
  if (session?.solo)
    return (
      <div className="page">
        <h1>{t`There are no accounts here`}</h1>
        <p>
          {t`The program was started for one person at this machine. Started with ./run.sh --house it asks everybody to sign in, and phones can reach it.`}
        </p>
      </div>
    );
  if (!own.data) return <Unready of={[own]} title={t`Your account`} />;
  const { account, name, role, sites, oneTimeCodes, recoveryCodes, browsers } = own.data;
  const error = leave.error ?? endBrowser.error ?? endOthers.error;
  const others = browsers.filter((b) => !b.here).length;
  return (
    <div className="page broad">
      <h1>{t`You are ${name}, ${word(role)}.`}</h1>
      <p className="quiet">
        {t`You sign in as ${account}.`}{' '}
        {sites.length > 0
          ? t`You may change things at these sites alone: ${sites.join(', ')}.`
          : t`Your rights hold at all sites.`}
      </p>
      {error && <Refusal error={error} />}
      <div className="button-row next-heading">
        <Button onClick={() => setOpen('password')}>{t`Change the password …`}</Button>
        <Button type="primary" loading={leave.isPending} onClick={() => leave.mutate(undefined)}>
          {t`Sign out`}
        </Button>
      </div>
      <h2 className="next-heading">
        {oneTimeCodes ? t`A code of your phone is asked for too.` : t`A password alone lets you in.`}
      </h2>
      <p className="quiet">
        {oneTimeCodes
          ? plural(recoveryCodes, {
              one: 'One recovery code is left for the day the phone is lost.',
              other: '# recovery codes are left for the day the phone is lost.',
            })
          : t`With a second factor whoever learns your password still stays outside.`}
      </p>
      <div className="button-row">
        {oneTimeCodes ? (
          <Button onClick={() => setOpen('end-codes')}>{t`Ask for no code any more …`}</Button>
        ) : (
          <Button onClick={() => setOpen('codes')}>{t`Set one-time codes up …`}</Button>
        )}
      </div>
      <h2 className="next-heading">
        {plural(browsers.length, {
          one: 'One browser is signed in with your account.',
          other: '# browsers are signed in with your account.',
        })}
      </h2>
      <PlainTable
        head={
          <>
            <th>{t`Browser`}</th>
            <th>{t`Signed in`}</th>
            <th>{t`Last at work`}</th>
            <th>{t`From`}</th>
            <th aria-label={t`Sign out`} />
          </>
        }
      >
        {browsers.map((b) => (
          <tr key={b.id}>
            <td translate="no" title={b.device}>
              {shortDevice(b.device)}
            </td>
            <td>{instant(b.begunAt)}</td>
            <td>{b.here ? t`now, this one` : instant(b.seenAt)}</td>
            <td translate="no">{b.address}</td>
            <td>
              {!b.here && <Button size="small" onClick={() => endBrowser.mutate(b.id)}>{t`Sign out`}</Button>}
            </td>
          </tr>
        ))}
      </PlainTable>
      {others > 0 && (
        <div className="button-row next-heading">
          <Button loading={endOthers.isPending} onClick={() => endOthers.mutate(undefined)}>
            {t`Sign all others out`}
          </Button>
        </div>
      )}
      <p className="quiet next-heading">
        <Link to="/phone">{t`On your phone`}</Link>
      </p>
      {open === 'password' && (
        <EditDialog
          title={t`Change the password`}
          initial={{ old: '', new: '' }}
          write={changePassword}
          onClose={() => setOpen(null)}
        >
          <p className="quiet">{t`All other browsers of yours are signed out.`}</p>
          <Form.Item name="old" label={t`Password until now`} rules={needed(t`The old password`)}>
            <Input.Password autoComplete="current-password" maxLength={1024} />
          </Form.Item>
          <Form.Item
            name="new"
            label={t`New password: 15 characters or more`}
            rules={needed(t`The new password`)}
          >
            <Input.Password autoComplete="new-password" maxLength={1024} />
          </Form.Item>
        </EditDialog>
      )}
      {open === 'end-codes' && (
        <EditDialog
          title={t`Ask for no code any more`}
          initial={{ password: '' }}
          write={endCodes}
          onClose={() => setOpen(null)}
        >
          <Form.Item name="password" label={t`Password`} rules={needed(t`The password`)}>
            <Input.Password autoComplete="current-password" maxLength={1024} />
          </Form.Item>
        </EditDialog>
      )}
      {open === 'codes' && <SetUpCodes onClose={() => setOpen(null)} />}
    </div>
  );
}
