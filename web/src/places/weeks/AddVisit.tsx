import { t } from '@lingui/core/macro';
import { Form, Input, Select } from 'antd';
import { api, unwrap } from '../../api/client';
import { useStaff, useWrite } from '../../api/queries';
import { EditDialog, needed } from '../../ui/EditDialog';
import { NumberField } from '../../ui/NumberField';
import type { Plan } from './board';

interface Fields {
  title: string;
  zone: string;
  minutes: number;
  dueBy: string;
}

/** Work that nobody advised; it waits for its place. */
export function AddVisit({ plan, onClose }: { plan: Plan; onClose: () => void }) {
  const zones = useStaff().data?.zones ?? [];
  const write = useWrite(({ title, zone, minutes, dueBy }: Fields) =>
    unwrap(
      api.POST('/api/v1/weeks/jobs', {
        body: { seen: plan.id, title, zone, minutes, dueBy: dueBy || null },
      }),
    ),
  );
  return (
    <EditDialog<Fields>
      title={t`Add a visit`}
      initial={{ title: '', zone: zones[0]?.zone ?? '', minutes: 30, dueBy: '' }}
      write={write}
      onClose={onClose}
    >
      <Form.Item name="title" label={t`What is to be done`} rules={needed(t`What is to be done`)}>
        <Input maxLength={80} />
      </Form.Item>
      <Form.Item name="zone" label={t`Zone`}>
        <Select options={zones.map((z) => ({ value: z.zone, label: z.name }))} />
      </Form.Item>
      <div className="two-fields">
        <Form.Item name="minutes" label={t`Minutes`} rules={needed(t`A number of minutes`)}>
          <NumberField min={1} max={720} inputMode="numeric" />
        </Form.Item>
        <Form.Item name="dueBy" label={t`Due by, if it is`}>
          <Input type="date" />
        </Form.Item>
      </div>
      <p className="quiet small">
        {t`It stands under “Not in these weeks” until you give it a place or plan again.`}
      </p>
    </EditDialog>
  );
}
