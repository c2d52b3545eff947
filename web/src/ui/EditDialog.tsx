import { t } from '@lingui/core/macro';
import { Form, Modal } from 'antd';
import type { UseMutationResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Refusal } from './Refusal';

/** A field that must not stay empty. */
export const needed = (what: string) => [{ required: true, message: t`${what} is needed.` }];

/** A dialog with one form: it closes once what was typed is kept, and stays with the reason where it was refused. */
export function EditDialog<Fields extends object>({
  title,
  initial,
  write,
  ok = t`Save`,
  staysOpen = false,
  onClose,
  children,
}: {
  title: string;
  initial: Fields;
  write: UseMutationResult<unknown, Error, Fields>;
  /** What its button says. */
  ok?: string;
  /** Whether it is closed by somebody else: what was done is told in its place. */
  staysOpen?: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  const [form] = Form.useForm<Fields>();
  return (
    <Modal
      title={title}
      open
      width={560}
      onCancel={onClose}
      okText={ok}
      confirmLoading={write.isPending}
      onOk={() =>
        void form.validateFields().then(
          (fields) => write.mutateAsync(fields).then(staysOpen ? undefined : onClose, () => undefined),
          () => undefined,
        )
      }
    >
      {write.isError && <Refusal error={write.error} />}
      <Form form={form} layout="vertical" requiredMark={false} initialValues={initial}>
        {children}
      </Form>
    </Modal>
  );
}
