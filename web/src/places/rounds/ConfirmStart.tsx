import { t } from '@lingui/core/macro';
import { Modal } from 'antd';
import { useState } from 'react';
import { Refusal } from '../../ui/Refusal';
import type { StartJob } from '../../ui/useStartJob';
import { levelName } from '../../words/work';
import type { ServiceLevel } from '../../api/client';

/** Asked before a key starts a job. */
export function ConfirmStart({
  asset,
  level,
  start,
  onClose,
}: {
  asset: string;
  level: ServiceLevel;
  start: StartJob;
  onClose: () => void;
}) {
  const [open, setOpen] = useState(true);
  return (
    <Modal
      title={t`Start a ${levelName(level)} on ${asset}?`}
      open={open}
      onCancel={() => setOpen(false)}
      afterClose={onClose}
      okText={t`Start at the bench`}
      confirmLoading={start.isPending}
      onOk={() => start.mutate({ asset, level })}
      width={420}
    >
      {start.isError && <Refusal error={start.error} />}
    </Modal>
  );
}
