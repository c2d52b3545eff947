import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Modal } from 'antd';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { PlainTable } from '../../ui/PlainTable';
import { Refusal } from '../../ui/Refusal';
import { instant, whole } from '../../words/format';

type Contents = Schemas['DatabaseContents'];

/** What laying a backup back would change, before anybody asks for it. */
export function LayBack({ name, onClose }: { name: string; onClose: () => void }) {
  const preview = useQuery({
    queryKey: ['backups', 'restore', name],
    queryFn: () => unwrap(api.GET('/api/v1/backups/{name}/restore', { params: { path: { name } } })),
    retry: false,
    gcTime: 0,
  });
  const ask = useWrite(() =>
    unwrap(api.POST('/api/v1/backups/{name}/restore', { params: { path: { name } } })),
  );
  const data = preview.data;
  const rows: readonly [string, (c: Contents) => string][] = [
    [t`machines`, (c) => whole(c.machines)],
    [t`readings`, (c) => whole(c.readings)],
    [t`jobs`, (c) => whole(c.jobs)],
    [t`entries at the bench`, (c) => whole(c.entries)],
    [t`photos`, (c) => whole(c.photos)],
    [t`last changed`, (c) => (c.lastChange === null ? t`never` : instant(c.lastChange))],
  ];
  return (
    <Modal
      title={t`Lay ${name} back`}
      open
      onCancel={onClose}
      okText={t`At the next start`}
      okButtonProps={{ disabled: !data || data.otherHouse }}
      confirmLoading={ask.isPending}
      onOk={() => void ask.mutateAsync(undefined).then(onClose, () => undefined)}
    >
      {preview.isPending && <p role="status">{t`It is unpacked and looked through …`}</p>}
      {preview.error && <Refusal error={preview.error} />}
      {ask.error && <Refusal error={ask.error} />}
      {data && (
        <>
          <PlainTable
            head={
              <>
                <th aria-label={t`what`} />
                <th className="num">{t`now`}</th>
                <th className="num">{t`then`}</th>
              </>
            }
          >
            {rows.map(([what, of]) => (
              <tr key={what}>
                <td>{what}</td>
                <td className="num">{data.now ? of(data.now) : t`unknown`}</td>
                <td className="num">{of(data.then)}</td>
              </tr>
            ))}
          </PlainTable>
          <p className="small">
            {data.otherHouse
              ? t`It is of another house. The command restore lays it into an empty folder.`
              : t`All that was entered since is gone from the house then; the database as it is now is copied aside first. Entries that still wait on a device are sent as always.`}
          </p>
        </>
      )}
    </Modal>
  );
}
