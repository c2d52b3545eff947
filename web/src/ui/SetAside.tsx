import { plural, t } from '@lingui/core/macro';
import { Form, Input, Modal } from 'antd';
import { useState } from 'react';
import { api, unwrap } from '../api/client';
import { useWrite } from '../api/queries';
import { Refusal } from './Refusal';

const DAYS_ASIDE = 60;

/** Takes machines out of the queue until a day, with the reason. */
export function SetAside({ tags, onClose }: { tags: readonly string[]; onClose: (done: boolean) => void }) {
  const [form] = Form.useForm<{ reason: string; until: string }>();
  const write = useWrite(async (body: { reason: string; until: string }) => {
    for (const tag of tags)
      await unwrap(api.PUT('/api/v1/assets/{tag}/set-aside', { params: { path: { tag } }, body }));
  });
  const [until] = useState(() => new Date(Date.now() + DAYS_ASIDE * 86_400_000).toISOString().slice(0, 10));
  return (
    <Modal
      title={plural(tags.length, { one: `Set ${tags[0] ?? ''} aside`, other: 'Set # machines aside' })}
      open
      onCancel={() => onClose(false)}
      okText={t`Set aside`}
      confirmLoading={write.isPending}
      onOk={() =>
        void form.validateFields().then(
          (values) =>
            write.mutateAsync(values).then(
              () => onClose(true),
              () => undefined,
            ),
          () => undefined,
        )
      }
    >
      <p className="quiet">
        {tags.length === 1
          ? t`It leaves the queue and comes back on its day. Its readings are judged as before.`
          : t`They leave the queue and come back on their day. Their readings are judged as before.`}
      </p>
      {write.isError && <Refusal error={write.error} />}
      <Form form={form} layout="vertical" initialValues={{ until }} requiredMark={false}>
        <Form.Item
          name="reason"
          label={t`What did you see?`}
          rules={[{ required: true, message: t`A word why, for the next one who wonders.` }]}
        >
          <Input.TextArea rows={3} maxLength={500} />
        </Form.Item>
        <Form.Item
          name="until"
          label={t`Back on`}
          rules={[{ required: true, message: t`The day it comes back.` }]}
        >
          <Input type="date" />
        </Form.Item>
      </Form>
    </Modal>
  );
}
