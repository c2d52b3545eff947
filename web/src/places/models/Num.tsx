import { NumberField } from '../../ui/NumberField';

/** A number with its name beside it. */
export function Num({
  label,
  value,
  onChange,
  onClear,
}: {
  label: string;
  value: number | null;
  onChange: (value: number) => void;
  onClear?: () => void;
}) {
  return (
    <label>
      {label}{' '}
      <NumberField
        value={value}
        min={0}
        max={2000}
        style={{ width: 84 }}
        onChange={(v) => (v === null ? onClear?.() : onChange(v))}
      />
    </label>
  );
}
