import { Checkbox } from 'antd';
import type { ReactNode } from 'react';

/** One thing to confirm, big enough for a glove. */
export function GateCheck({
  checked,
  onChange,
  children,
}: {
  checked: boolean;
  onChange: (checked: boolean) => void;
  children: ReactNode;
}) {
  return (
    <Checkbox className="gate-check" checked={checked} onChange={(e) => onChange(e.target.checked)}>
      {children}
    </Checkbox>
  );
}
