import { t } from '@lingui/core/macro';
import { Form, Input } from 'antd';
import { api, unwrap } from '../../api/client';
import { useWrite } from '../../api/queries';
import { EditDialog, needed } from '../../ui/EditDialog';

interface Fields {
  until: string;
  reason: string;
}

/** Lets a machine wait for something that is not there yet; the next plan keeps to it. */
export function WaitFor({ tag, onClose }: { tag: string; onClose: () => void }) {
  const write = useWrite((body: Fields) =>
    unwrap(api.PUT('/api/v1/assets/{tag}/hold', { params: { path: { tag } }, body })),
  );
  return (
    <EditDialog<Fields>
      title={t`${tag} waits`}
      initial={{ until: '', reason: '' }}
      write={write}
      onClose={onClose}
    >
      <Form.Item name="until" label={t`First day on which it may be worked on`} rules={needed(t`The day`)}>
        <Input type="date" />
      </Form.Item>
      <Form.Item
        name="reason"
        label={t`What it waits for, such as 2.0 mm pads`}
        rules={needed(t`What it waits for`)}
      >
        <Input maxLength={80} />
      </Form.Item>
      <p className="quiet small">{t`The next plan keeps to it; “People and times” lists what waits.`}</p>
    </EditDialog>
  );
}
