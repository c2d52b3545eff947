import { t } from '@lingui/core/macro';
import { Checkbox, Form, Input } from 'antd';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { EditDialog, needed } from '../../ui/EditDialog';
import { clockAt } from '../../words/format';
import { NOTICE_KINDS } from '../../words/notices';

type Fields = {
  shown: Schemas['NoticeKind'][];
  mailed: Schemas['NoticeKind'][];
  called: Schemas['NoticeKind'][];
  mailTo: string;
  mailAt: string;
  webhookUrl: string;
  quietFrom: string;
  quietTo: string;
};

const OPTIONS = Object.entries(NOTICE_KINDS).map(([value, label]) => ({ value, label }));

/** A time such as 07:30 as the reader writes it. */
export const timeWords = (time: string): string => {
  const [hours = 0, minutes = 0] = time.split(':').map(Number);
  return clockAt(hours * 60 + minutes);
};

/** What somebody wants to be told of, and how. */
export function EditTold({
  person,
  onClose,
}: {
  person: Schemas['SubscriptionAnswer'];
  onClose: () => void;
}) {
  const write = useWrite(({ mailTo, webhookUrl, quietFrom, quietTo, ...kinds }: Fields) =>
    unwrap(
      api.PUT('/api/v1/people/{code}/notices', {
        params: { path: { code: person.person } },
        body: {
          ...kinds,
          mailTo: mailTo.trim() || null,
          webhookUrl: webhookUrl.trim() || null,
          quietFrom: quietFrom || null,
          quietTo: quietTo || null,
        },
      }),
    ),
  );
  return (
    <EditDialog<Fields>
      title={t`What ${person.name} is told of`}
      initial={{
        shown: [...person.shown],
        mailed: [...person.mailed],
        called: [...person.called],
        mailTo: person.mailTo ?? '',
        mailAt: person.mailAt,
        webhookUrl: person.webhookUrl ?? '',
        quietFrom: person.quietFrom ?? '',
        quietTo: person.quietTo ?? '',
      }}
      write={write}
      onClose={onClose}
    >
      <Form.Item name="shown" label={t`In the program`}>
        <Checkbox.Group options={OPTIONS} />
      </Form.Item>
      <div className="two-fields">
        <Form.Item name="mailTo" label={t`Mail to; empty for none`}>
          <Input type="email" maxLength={254} />
        </Form.Item>
        <Form.Item name="mailAt" label={t`Once a day at`} rules={needed(t`A time`)}>
          <Input type="time" />
        </Form.Item>
      </div>
      <Form.Item name="mailed" label={t`In the mail`}>
        <Checkbox.Group options={OPTIONS} />
      </Form.Item>
      <Form.Item
        name="webhookUrl"
        label={t`Address of a program to call (a webhook); empty for none`}
        extra={t`A signed POST of JSON as soon as something is new. Where it fails it is tried again for two days.`}
      >
        <Input type="url" maxLength={500} />
      </Form.Item>
      <Form.Item name="called" label={t`It is called for`}>
        <Checkbox.Group options={OPTIONS} />
      </Form.Item>
      <div className="two-fields">
        <Form.Item name="quietFrom" label={t`Send nothing from`}>
          <Input type="time" />
        </Form.Item>
        <Form.Item name="quietTo" label={t`until`}>
          <Input type="time" />
        </Form.Item>
      </div>
    </EditDialog>
  );
}
