import { t } from '@lingui/core/macro';
import { Form, Input } from 'antd';
import { KIND_NAMES } from '../../words/format';
import { KINDS } from './kinds';
import { NumberField } from '../../ui/NumberField';
import { PlainTable } from '../../ui/PlainTable';

const AMOUNTS = [
  { name: 'technicianHour', label: t`An hour of a technician`, least: 0, most: 1e9, step: 1 },
  { name: 'kilowattHour', label: t`A kilowatt-hour`, least: 0, most: 1e9, step: 0.01 },
  {
    name: 'decibelYear',
    label: t`A decibel less for a year, where people sit beside it`,
    least: 0,
    most: 1e9,
    step: 0.5,
  },
  { name: 'crashHours', label: t`Machine-hours that a crash costs`, least: 0, most: 1000, step: 0.5 },
  {
    name: 'lifeYears',
    label: t`Years that a machine lasts if it stays cool`,
    least: 0.5,
    most: 100,
    step: 0.5,
  },
  { name: 'payBackYears', label: t`Years in which a service has to pay`, least: 1, most: 10, step: 1 },
  {
    name: 'downtimeShare',
    label: t`Share of its hour that is lost while it stands for a service, 0 to 1`,
    least: 0,
    most: 1,
    step: 0.1,
  },
  { name: 'activationEnergyEv', label: t`Activation energy of ageing, eV`, least: 0, most: 2, step: 0.05 },
] as const;

const OF_A_KIND = [
  { amount: 'machineHour', label: t`an hour of its full work`, step: 0.1 },
  { amount: 'replacement', label: t`a new one`, step: 50 },
] as const;

/** What hours, machines and electricity are worth to the house: fields of the rules' form, for what a service is worth. */
export function HouseValues() {
  const needed = [{ required: true, message: t`A number is needed.` }];
  return (
    <>
      <h2 className="next-heading" id="values">{t`What things are worth`}</h2>
      <p className="quiet">
        {t`A service is weighed by these over the years in which it has to pay: clocks and hours kept, slower ageing, quiet and electricity against time, material, standing still, risk and warranty. Every house has its own.`}
      </p>
      <Form.Item
        name={['values', 'currency']}
        label={t`Currency`}
        rules={[{ required: true, whitespace: true, message: t`A word or sign is needed.` }]}
      >
        <Input maxLength={8} style={{ width: 110 }} />
      </Form.Item>
      <PlainTable
        head={
          <>
            <th scope="col">{t`Kind`}</th>
            {OF_A_KIND.map(({ amount, label }) => (
              <th key={amount} scope="col">
                {label}
              </th>
            ))}
          </>
        }
        className="rules-kinds"
      >
        {KINDS.map(({ name, kind }) => (
          <tr key={name}>
            <th scope="row">{KIND_NAMES[kind]}</th>
            {OF_A_KIND.map(({ amount, label, step }) => (
              <td key={amount}>
                <Form.Item noStyle name={['values', name, amount]} rules={needed}>
                  <NumberField
                    min={0}
                    max={1e9}
                    step={step}
                    inputMode="decimal"
                    aria-label={`${KIND_NAMES[kind]!}: ${label}`}
                  />
                </Form.Item>
              </td>
            ))}
          </tr>
        ))}
      </PlainTable>
      <div className="rules-amounts">
        {AMOUNTS.map(({ name, label, least, most, step }) => (
          <Form.Item key={name} name={['values', name]} label={label} rules={needed}>
            <NumberField min={least} max={most} step={step} inputMode="decimal" />
          </Form.Item>
        ))}
      </div>
    </>
  );
}
