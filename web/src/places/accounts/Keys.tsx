import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Button, Form, Input, Modal, Popconfirm, Select } from 'antd';
import { useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { EditDialog, needed } from '../../ui/EditDialog';
import { PlainTable } from '../../ui/PlainTable';
import { Refusal } from '../../ui/Refusal';
import { instant } from '../../words/format';

type Scope = Schemas['KeyScope'];

/** What a program may with a key. */
const SCOPES: Readonly<Record<Scope, string>> = {
  readings: t`send readings and sensor logs`,
  look: t`look at what a reader sees`,
  calendar: t`read the calendar`,
};

/** Keys of programs: sources of readings, reports, calendars. */
export function Keys() {
  const keys = useQuery({ queryKey: ['keys'], queryFn: () => unwrap(api.GET('/api/v1/keys')) });
  const [adding, setAdding] = useState(false);
  const [given, setGiven] = useState<{ name: string; key: string } | null>(null);
  const add = useWrite(async (fields: { name: string; scope: Scope; until: string }) => {
    const body = { name: fields.name, scope: fields.scope, until: fields.until || null };
    setGiven({ name: fields.name, ...(await unwrap(api.POST('/api/v1/keys', { body }))) });
  });
  const renew = useWrite(async ({ id, name }: Schemas['KeyAnswer']) => {
    const answer = await unwrap(api.POST('/api/v1/keys/{id}/renew', { params: { path: { id } } }));
    setGiven({ name, ...answer });
  });
  const remove = useWrite((id: number) =>
    unwrap(api.DELETE('/api/v1/keys/{id}', { params: { path: { id } } })),
  );
  const error = renew.error ?? remove.error;
  return (
    <>
      <h2 className="next-heading">{t`Keys of programs`}</h2>
      <p className="quiet">
        {t`A program cannot sign in. What sends readings by itself, makes reports or shows the plan in a calendar comes with a key of its own.`}
      </p>
      {error && <Refusal error={error} />}
      {keys.data && keys.data.length > 0 && (
        <PlainTable
          head={
            <>
              <th>{t`Program`}</th>
              <th>{t`May`}</th>
              <th>{t`Begins with`}</th>
              <th>{t`Ends`}</th>
              <th>{t`Last used`}</th>
              <th aria-label={t`Change`} />
            </>
          }
        >
          {keys.data.map((k) => (
            <tr key={k.id}>
              <td translate="no">{k.name}</td>
              <td>{SCOPES[k.scope]}</td>
              <td translate="no">
                <code>{k.begins}…</code>
              </td>
              <td>{k.until === null ? t`never` : instant(k.until)}</td>
              <td>{k.usedAt === null ? t`never` : t`${instant(k.usedAt)}, from ${k.usedFrom ?? ''}`}</td>
              <td>
                <span className="button-row">
                  <Popconfirm
                    title={t`A new key is made. The one before works for another day.`}
                    okText={t`Renew`}
                    cancelText={t`Keep`}
                    onConfirm={() => renew.mutate(k)}
                  >
                    <Button size="small">{t`Renew …`}</Button>
                  </Popconfirm>
                  <Popconfirm
                    title={t`${k.name} can do nothing here from now on.`}
                    okText={t`End the key`}
                    cancelText={t`Keep`}
                    onConfirm={() => remove.mutate(k.id)}
                  >
                    <Button size="small">{t`End …`}</Button>
                  </Popconfirm>
                </span>
              </td>
            </tr>
          ))}
        </PlainTable>
      )}
      <div className="button-row">
        <Button onClick={() => setAdding(true)}>{t`Give a program a key …`}</Button>
      </div>
      {adding && (
        <EditDialog<{ name: string; scope: Scope; until: string }>
          title={t`A key for a program`}
          initial={{ name: '', scope: 'readings', until: '' }}
          write={add}
          onClose={() => setAdding(false)}
        >
          <Form.Item
            name="name"
            label={t`Name of the program; it stands in the log beside what it sends`}
            rules={needed(t`The name`)}
          >
            <Input maxLength={60} />
          </Form.Item>
          <Form.Item name="scope" label={t`What it may`}>
            <Select
              options={(Object.keys(SCOPES) as Scope[]).map((value) => ({ value, label: SCOPES[value] }))}
            />
          </Form.Item>
          <Form.Item name="until" label={t`The last day on which it counts; empty for no end`}>
            <Input type="date" />
          </Form.Item>
        </EditDialog>
      )}
      {given && (
        <Modal title={t`The key for ${given.name}`} open footer={null} onCancel={() => setGiven(null)}>
          <p>{t`It is shown now and never again. The program sends it with each call:`}</p>
          <p translate="no">
            <code className="whole-link">{`Authorization: Bearer ${given.key}`}</code>
          </p>
          <p className="quiet">{t`A calendar has it at the end of its address instead, behind key=.`}</p>
        </Modal>
      )}
    </>
  );
}
