import type { InputNumberProps } from 'antd';
import { differenceUnit, inUnit, useTemperature } from '../words/format';
import { NumberField } from './NumberField';

type Field = Omit<InputNumberProps<number>, 'value' | 'onChange' | 'min' | 'max'> & {
  value?: number | null;
  min: number;
  max: number;
  onChange?: (value: number | null) => void;
};

const toTenth = (value: number): number => Math.round(value * 10) / 10;

/** A temperature: °C to its user, typed and shown in the reader's unit. */
export function TemperatureField({ value, min, max, onChange, ...rest }: Field) {
  const { unit, toCelsius } = useTemperature();
  const shown = (celsius: number) => toTenth(inUnit(celsius, unit));
  return (
    <NumberField
      inputMode="decimal"
      {...rest}
      min={shown(min)}
      max={shown(max)}
      value={typeof value === 'number' ? shown(value) : null}
      onChange={(typed) => onChange?.(typed === null ? null : toCelsius(typed))}
    />
  );
}

/** A difference of temperatures: kelvins to its user, typed and shown in the reader's unit. */
export function DifferenceField({ value, min, max, onChange, ...rest }: Field) {
  const { scale } = differenceUnit();
  return (
    <NumberField
      inputMode="decimal"
      {...rest}
      min={toTenth(min * scale)}
      max={toTenth(max * scale)}
      value={typeof value === 'number' ? toTenth(value * scale) : null}
      onChange={(typed) => onChange?.(typed === null ? null : typed / scale)}
    />
  );
}
