import { Input } from 'antd';

/** A day that a list begins or ends with; empty for none. */
export function DayField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (day: string) => void;
}) {
  return (
    <label>
      {label}{' '}
      <Input type="date" value={value} onChange={(e) => onChange(e.target.value)} style={{ width: 140 }} />
    </label>
  );
}
