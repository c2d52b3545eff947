import { t } from '@lingui/core/macro';
import { Button, Checkbox, Form, Input, Popconfirm, Select } from 'antd';
import { api, unwrap, type Schemas } from '../../api/client';
import { useQueue, useWrite, useZones } from '../../api/queries';
import { EditDialog, needed } from '../../ui/EditDialog';
import { Refusal } from '../../ui/Refusal';
import { word } from '../../words/word';

interface Fields {
  account: string;
  name: string;
  role: Schemas['Role'];
  sites: string[];
  machines: string[];
  suspended: boolean;
}

const ROLES: Schemas['Role'][] = ['reader', 'technician', 'planner', 'keeper', 'administrator', 'owner'];

/** What an account is called and may; a new one, or one that there is. */
export function EditAccount({
  account,
  onAdded,
  onClose,
}: {
  account: Schemas['AccountAnswer'] | null;
  onAdded: (name: string, given: Schemas['LinkGiven']) => void;
  onClose: () => void;
}) {
  const zones = useZones();
  const queue = useQueue();
  const write = useWrite(async ({ account: code, ...typed }: Fields) => {
    const body = { ...typed, name: typed.name.normalize('NFC') };
    const path = { code: account?.account ?? code };
    if (account) return unwrap(api.PUT('/api/v1/accounts/{code}', { params: { path }, body }));
    onAdded(body.name, await unwrap(api.POST('/api/v1/accounts/{code}', { params: { path }, body })));
  });
  const remove = useWrite((code: string) =>
    unwrap(api.DELETE('/api/v1/accounts/{code}', { params: { path: { code } } })),
  );
  const endCodes = useWrite((code: string) =>
    unwrap(api.POST('/api/v1/accounts/{code}/codes/end', { params: { path: { code } } })),
  );
  const sites = [...new Map((zones.data ?? []).map((z) => [z.site, z.siteName]))];
  return (
    <EditDialog<Fields>
      title={account ? t`Account ${account.account}` : t`Let somebody in`}
      initial={{
        account: '',
        name: account?.name ?? '',
        role: account?.role ?? 'technician',
        sites: account?.sites ?? [],
        machines: account?.machines ?? [],
        suspended: account?.suspended ?? false,
      }}
      write={write}
      onClose={onClose}
    >
      {remove.isError && <Refusal error={remove.error} />}
      {endCodes.isError && <Refusal error={endCodes.error} />}
      <Form.Item name="name" label={t`Name, as others see it`} rules={needed(t`The name`)}>
        <Input maxLength={80} />
      </Form.Item>
      {!account && (
        <Form.Item
          name="account"
          label={t`Sign-in name: small letters a to z, digits, dots and hyphens`}
          rules={needed(t`The sign-in name`)}
        >
          <Input autoCapitalize="none" spellCheck={false} maxLength={40} />
        </Form.Item>
      )}
      <Form.Item name="role" label={t`Role`}>
        <Select options={ROLES.map((value) => ({ value, label: word(value) }))} />
      </Form.Item>
      <Form.Item noStyle dependencies={['role']}>
        {({ getFieldValue }) =>
          getFieldValue('role') === 'owner' ? (
            <Form.Item name="machines" label={t`Machines that are theirs`}>
              <Select
                mode="multiple"
                options={(queue.data?.items ?? []).map((i) => ({ value: i.asset, label: i.asset }))}
              />
            </Form.Item>
          ) : getFieldValue('role') === 'administrator' ? null : (
            <Form.Item name="sites" label={t`Sites where they may change something; none for all`}>
              <Select mode="multiple" options={sites.map(([value, label]) => ({ value, label }))} />
            </Form.Item>
          )
        }
      </Form.Item>
      {account && (
        <>
          <Form.Item name="suspended" valuePropName="checked">
            <Checkbox>{t`May not sign in for the time being`}</Checkbox>
          </Form.Item>
          <span className="button-row">
            {account.oneTimeCodes && (
              <Button loading={endCodes.isPending} onClick={() => endCodes.mutate(account.account)}>
                {t`Take the second factor away`}
              </Button>
            )}
            <Popconfirm
              title={t`What ${account.name} did keeps their name. Nobody signs in with this account any more.`}
              okText={t`Remove`}
              cancelText={t`Keep`}
              onConfirm={() => remove.mutate(account.account, { onSuccess: onClose })}
            >
              <Button danger loading={remove.isPending}>
                {t`Remove the account …`}
              </Button>
            </Popconfirm>
          </span>
        </>
      )}
    </EditDialog>
  );
}
