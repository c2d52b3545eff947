import { t } from '@lingui/core/macro';
import { Input, Modal } from 'antd';
import { useState } from 'react';
import { Refusal } from './Refusal';

/** Asks why before something is struck out. */
export function AskReason({
  title,
  text,
  confirm,
  busy,
  onClose,
  onReason,
}: {
  title: string;
  text: string;
  /** What is done when it is confirmed, in a word or two. */
  confirm: string;
  busy: boolean;
  onClose: () => void;
  onReason: (reason: string) => Promise<unknown>;
}) {
  const [reason, setReason] = useState('');
  const [error, setError] = useState<Error | null>(null);
  return (
    <Modal
      title={title}
      open
      onCancel={onClose}
      confirmLoading={busy}
      okText={confirm}
      okButtonProps={{ disabled: reason.trim() === '' }}
      onOk={() =>
        void onReason(reason.trim()).then(onClose, (e: unknown) =>
          setError(e instanceof Error ? e : new Error(String(e))),
        )
      }
    >
      <p className="quiet">{text}</p>
      {error && <Refusal error={error} />}
      <label>
        {t`Why?`}
        <Input.TextArea rows={2} maxLength={500} value={reason} onChange={(e) => setReason(e.target.value)} />
      </label>
    </Modal>
  );
}
