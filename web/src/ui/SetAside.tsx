import { Form, Input, Modal } from 'antd';
import { useState } from 'react';
import { api, unwrap, type QueueItem } from '../api/client';
import { useWrite } from '../api/queries';
import { Refusal } from './Refusal';

const DAYS_ASIDE = 60;

/** Takes a machine out of the queue until a day, with the reason. */
export function SetAside({ item, onClose }: { item: Pick<QueueItem, 'asset'>; onClose: () => void }) {
  const [form] = Form.useForm<{ reason: string; until: string }>();
  const write = useWrite((body: { reason: string; until: string }) =>
    unwrap(api.PUT('/api/v1/assets/{tag}/set-aside', { params: { path: { tag: item.asset } }, body })),
  );
  const [until] = useState(() => new Date(Date.now() + DAYS_ASIDE * 86_400_000).toISOString().slice(0, 10));
  return (
    <Modal
      title={`Set ${item.asset} aside`}
      open
      onCancel={onClose}
      okText="Set aside"
      confirmLoading={write.isPending}
      onOk={() =>
        void form.validateFields().then((values) => write.mutateAsync(values).then(onClose, () => undefined))
      }
    >
      <p className="quiet">
        It leaves the queue and comes back on its day. Its readings are judged as before.
      </p>
      {write.isError && <Refusal error={write.error} />}
      <Form form={form} layout="vertical" initialValues={{ until }} requiredMark={false}>
        <Form.Item
          name="reason"
          label="What did you see?"
          rules={[{ required: true, message: 'A word why, for the next one who wonders.' }]}
        >
          <Input.TextArea rows={3} maxLength={500} />
        </Form.Item>
        <Form.Item
          name="until"
          label="Back on"
          rules={[{ required: true, message: 'The day it comes back.' }]}
        >
          <Input type="date" />
        </Form.Item>
      </Form>
    </Modal>
  );
}
