import { t } from '@lingui/core/macro';
import { Modal } from 'antd';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { Refusal } from '../../ui/Refusal';
import { AskReason } from '../../ui/AskReason';

/** Takes a machine out of use, or puts it back; its history stays either way. */
export function Retire({ machine, onClose }: { machine: Schemas['MachineAnswer']; onClose: () => void }) {
  const write = useWrite((body: Schemas['Retirement']) =>
    unwrap(api.POST('/api/v1/assets/{tag}/retirement', { params: { path: { tag: machine.tag } }, body })),
  );
  if (machine.retiredOn)
    return (
      <Modal
        title={t`Put ${machine.tag} back into use`}
        open
        onCancel={onClose}
        okText={t`Put back`}
        confirmLoading={write.isPending}
        onOk={() =>
          void write.mutateAsync({ retired: false, on: null, reason: null }).then(onClose, () => undefined)
        }
      >
        {write.isError && <Refusal error={write.error} />}
        <p>{t`It is judged again from its readings.`}</p>
      </Modal>
    );
  return (
    <AskReason
      title={t`Retire ${machine.tag}`}
      text={t`It leaves the queue and the judgement. Its history stays, and it can be put back.`}
      busy={write.isPending}
      confirm={t`Retire`}
      onClose={onClose}
      onReason={(reason) => write.mutateAsync({ retired: true, on: null, reason })}
    />
  );
}
