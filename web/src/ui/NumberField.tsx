import { InputNumber, type InputNumberProps } from 'antd';
import { readDecimal } from './decimal';

/** A field for a number, typed with a decimal point or comma. */
export function NumberField(props: InputNumberProps<number>) {
  return <InputNumber<number> parser={(text) => readDecimal(text) as unknown as number} {...props} />;
}
