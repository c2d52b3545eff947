import { t } from '@lingui/core/macro';
import { Button, Modal } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { instant } from '../../words/format';

/** A link, shown once: to be handed over by whatever way reaches its person alone. */
export function GivenLink({
  name,
  link,
  onClose,
}: {
  name: string;
  link: Schemas['LinkGiven'];
  onClose: () => void;
}) {
  const [copied, setCopied] = useState(false);
  const address = new URL(link.path, location.origin).href;
  return (
    <Modal title={t`The link for ${name}`} open width={560} footer={null} onCancel={onClose}>
      <p>
        {t`Whoever opens it first chooses the password: give it to ${name} alone. It works once, until ${instant(link.until)}, and is not shown again.`}
      </p>
      <p translate="no">
        <code className="whole-link">{address}</code>
      </p>
      <Button
        type="primary"
        onClick={() => void navigator.clipboard.writeText(address).then(() => setCopied(true))}
      >
        {copied ? t`Copied` : t`Copy`}
      </Button>
    </Modal>
  );
}
