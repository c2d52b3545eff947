import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Button, Form, Input, Modal, Select } from 'antd';
import { useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { EditDialog, needed } from '../../ui/EditDialog';
import { listed } from '../../words/format';

/** Takes somebody's name out of the house: chosen, and typed once more, since nobody can take it back. */
export function EraseName({ onClose }: { onClose: () => void }) {
  const names = useQuery({
    queryKey: ['housekeeping', 'names'],
    queryFn: () => unwrap(api.GET('/api/v1/housekeeping/names')),
  });
  const [name, setName] = useState<string | null>(null);
  const [erased, setErased] = useState<Schemas['ErasedName'] | null>(null);
  const erase = useWrite(async (fields: { name: string; again: string }) => {
    setErased(await unwrap(api.POST('/api/v1/housekeeping/names/erase', { body: { name: fields.name } })));
  });
  const chosen = names.data?.find((n) => n.name === name);
  if (erased)
    return (
      <Modal
        title={t`The name is erased`}
        open
        onCancel={onClose}
        footer={<Button type="primary" onClick={onClose}>{t`Close`}</Button>}
      >
        <p>
          {t`“${erased.as}” stands in its place.`}{' '}
          {plural(erased.lines, {
            one: '# line of the log was written anew.',
            other: '# lines of the log were written anew.',
          })}{' '}
          {erased.records > 0 &&
            plural(erased.records, {
              one: 'The name went out of # other record.',
              other: 'The name went out of # other records.',
            })}
        </p>
      </Modal>
    );
  return (
    <EditDialog
      title={t`Erase a name`}
      initial={{ name: '', again: '' }}
      write={erase}
      ok={t`Erase it`}
      staysOpen
      onClose={onClose}
    >
      <p>
        {t`What the person did stays, under a number. Their account, their place on the list of who works, where they are told of news, and from where they worked go. Nobody can take it back; backups made before still hold the name until they are cleared away.`}
      </p>
      <Form.Item name="name" label={t`Name`} rules={needed(t`The name`)}>
        <Select
          showSearch
          onChange={setName}
          options={(names.data ?? []).map((n) => ({ value: n.name, label: n.name }))}
          notFoundContent={t`Nobody is named yet.`}
        />
      </Form.Item>
      {chosen && <p className="quiet">{whereNamed(chosen)}</p>}
      <Form.Item
        name="again"
        label={t`The name once more`}
        dependencies={['name']}
        rules={[
          ({ getFieldValue }) => ({
            validator: (_, again) =>
              again === getFieldValue('name')
                ? Promise.resolve()
                : Promise.reject(new Error(t`This is not the name that is chosen.`)),
          }),
        ]}
      >
        <Input autoComplete="off" maxLength={200} />
      </Form.Item>
    </EditDialog>
  );
}

function whereNamed(name: Schemas['KnownName']): string {
  const says = listed([
    plural(name.lines, { one: '# line of the log is theirs', other: '# lines of the log are theirs' }),
    ...(name.account ? [t`they sign in as ${name.account}`] : []),
    ...(name.works ? [t`they stand on the list of who works`] : []),
  ]);
  return `${says}.`;
}
