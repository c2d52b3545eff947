import { t } from '@lingui/core/macro';
import { Form, Select } from 'antd';
import { api, unwrap, type Schemas } from '../../api/client';
import { useMachines, useWrite } from '../../api/queries';
import { EditDialog, needed } from '../../ui/EditDialog';

/** Takes machines into a campaign that runs. */
export function AddMachines({
  campaign: c,
  onClose,
}: {
  campaign: Schemas['CampaignAnswer'];
  onClose: () => void;
}) {
  const machines = useMachines().data ?? [];
  const write = useWrite(({ assets }: { assets: string[] }) =>
    unwrap(api.POST('/api/v1/campaigns/{id}/machines', { params: { path: { id: c.id } }, body: { assets } })),
  );
  const within = new Set(c.machines.map((m) => m.tag));
  return (
    <EditDialog<{ assets: string[] }>
      title={t`More machines for ${c.name}`}
      initial={{ assets: [] }}
      write={write}
      onClose={onClose}
    >
      <Form.Item
        name="assets"
        label={t`Machines`}
        extra={t`They come behind those that are in it.`}
        rules={needed(t`A machine`)}
      >
        <Select
          mode="multiple"
          options={machines
            .filter((m) => !within.has(m.tag))
            .map((m) => ({ value: m.tag, label: `${m.tag} ${m.model}` }))}
        />
      </Form.Item>
    </EditDialog>
  );
}
