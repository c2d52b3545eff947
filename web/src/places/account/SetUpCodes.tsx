import { t } from '@lingui/core/macro';
import { Button, Form, Input, Modal } from 'antd';
import { useState } from 'react';
import { api, unwrap } from '../../api/client';
import { useWrite } from '../../api/queries';
import { needed } from '../../ui/EditDialog';
import { Refusal } from '../../ui/Refusal';
import { normalPassword } from '../../words/password';

/** Sets one-time codes up: password, picture for the phone, a code back, and the codes for when the phone is lost. */
export function SetUpCodes({ onClose }: { onClose: () => void }) {
  const offer = useWrite(({ password }: { password: string }) =>
    unwrap(api.POST('/api/v1/account/codes', { body: { password: normalPassword(password) } })),
  );
  const begin = useWrite(({ code }: { code: string }) =>
    unwrap(api.POST('/api/v1/account/codes/begin', { body: { code } })),
  );
  const [written, setWritten] = useState(false);
  const error = begin.error ?? offer.error;
  const title = begin.data ? t`Write these codes down` : t`Set one-time codes up`;
  return (
    <Modal
      title={title}
      open
      width={480}
      footer={null}
      closable={!begin.data}
      mask={{ closable: false }}
      onCancel={onClose}
    >
      {error && <Refusal error={error} />}
      {begin.data ? (
        <>
          <p>
            {t`Each lets you in once instead of a code of the phone. They are shown now and never again: on paper they are safest.`}
          </p>
          <ul className="code-list" translate="no">
            {begin.data.codes.map((code) => (
              <li key={code}>
                <code>{code}</code>
              </li>
            ))}
          </ul>
          <Button onClick={() => window.print()}>{t`Print`}</Button>{' '}
          <Button
            onClick={() => {
              void navigator.clipboard.writeText(begin.data.codes.join('\n')).then(() => setWritten(true));
            }}
          >
            {written ? t`Copied` : t`Copy`}
          </Button>{' '}
          <Button type="primary" onClick={onClose}>
            {t`I have them`}
          </Button>
        </>
      ) : offer.data ? (
        <>
          <p>{t`Read this picture with the program on your phone that tells one-time codes.`}</p>
          <img
            className="code-picture"
            alt={t`The secret as a QR code`}
            src={`data:image/svg+xml;utf8,${encodeURIComponent(offer.data.qr)}`}
          />
          <p className="quiet">
            {t`Without a camera type this secret:`} <code translate="no">{offer.data.secret}</code>
          </p>
          <Form<{ code: string }>
            layout="vertical"
            requiredMark={false}
            onFinish={(fields) => begin.mutate(fields)}
          >
            <Form.Item name="code" label={t`The code that it shows now`} rules={needed(t`The code`)}>
              <Input inputMode="numeric" autoComplete="one-time-code" maxLength={10} />
            </Form.Item>
            <Button type="primary" htmlType="submit" loading={begin.isPending}>
              {t`Ask for it from now on`}
            </Button>
          </Form>
        </>
      ) : (
        <Form<{ password: string }>
          layout="vertical"
          requiredMark={false}
          onFinish={(fields) => offer.mutate(fields)}
        >
          <Form.Item name="password" label={t`Password`} rules={needed(t`The password`)}>
            <Input.Password autoComplete="current-password" maxLength={1024} />
          </Form.Item>
          <Button type="primary" htmlType="submit" loading={offer.isPending}>
            {t`Next`}
          </Button>
        </Form>
      )}
    </Modal>
  );
}
