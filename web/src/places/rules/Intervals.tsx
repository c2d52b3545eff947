import { t } from '@lingui/core/macro';
import { Form } from 'antd';
import { NumberField } from '../../ui/NumberField';
import { PlainTable } from '../../ui/PlainTable';
import { KIND_NAMES } from '../../words/format';
import { KINDS } from './kinds';

const MONTHS = [
  { name: 'look', label: t`a look`, empty: t`never` },
  { name: 'dustOut', label: t`dust-out`, empty: t`never` },
  { name: 'longestDustOut', label: t`dust-out, at the longest`, empty: t`no limit` },
  { name: 'repaste', label: t`new paste`, empty: t`never` },
  { name: 'repasteUsedHard', label: t`new paste, used hard`, empty: t`as usual` },
  { name: 'fan', label: t`another fan`, empty: t`when it fails` },
] as const;

const FACTORS = [
  { name: 'cleanAir', label: t`In a zone of clean air` },
  { name: 'heavyDust', label: t`In a zone of heavy dust` },
  { name: 'serverCleanAir', label: t`Servers in clean air` },
  { name: 'serverHeavyDust', label: t`Servers in heavy dust` },
  { name: 'petsOrSmoke', label: t`Pets or smoke about it` },
  { name: 'allDay', label: t`At work 20 hours a day and more` },
  { name: 'fewHours', label: t`At work 6 hours a day and less` },
  { name: 'saltAir', label: t`Salt air` },
  { name: 'dryAir', label: t`Dry air all year (paste)` },
] as const;

const SHARES = [
  {
    name: 'perHotKelvin',
    label: t`Less for each kelvin of design ambient above 30 °C (paste)`,
  },
  { name: 'perKilometre', label: t`Less for each kilometre of altitude above the first` },
] as const;

/** How often the calendar asks, and what shortens that: fields of the rules' form. */
export function Intervals() {
  const needed = [{ required: true, message: t`A number is needed.` }];
  return (
    <>
      <h2 className="next-heading" id="intervals">{t`How often the calendar asks`}</h2>
      <p className="quiet">
        {t`Months from one service to the next, as common practice has them; an empty field means that the calendar does not ask. A look is what readings that arrive by themselves are already.`}
      </p>
      <PlainTable
        head={
          <>
            <th scope="col">{t`Kind`}</th>
            {MONTHS.map(({ name, label }) => (
              <th key={name} scope="col">
                {label}
              </th>
            ))}
          </>
        }
        className="rules-kinds"
      >
        {KINDS.map((kind) => (
          <tr key={kind.name}>
            <th scope="row">{KIND_NAMES[kind.kind]}</th>
            {MONTHS.map(({ name, label, empty }) => (
              <td key={name}>
                <Form.Item noStyle name={['intervals', kind.name, name]}>
                  <NumberField
                    min={0.5}
                    max={240}
                    step={1}
                    inputMode="decimal"
                    placeholder={empty}
                    aria-label={t`${KIND_NAMES[kind.kind]!}: months, ${label}`}
                  />
                </Form.Item>
              </td>
            ))}
          </tr>
        ))}
      </PlainTable>
      <Form.Item
        name={['intervals', 'hardUseHours']}
        label={t`A machine at work so many hours a day is used hard`}
        extra={t`One that is loaded for hours in fewer is marked by a rule of its own.`}
        rules={needed}
      >
        <NumberField min={0} max={24} step={1} inputMode="decimal" />
      </Form.Item>
      <details className="apart-small">
        <summary>{t`What makes intervals longer or shorter`}</summary>
        <p className="quiet">{t`Each multiplies the months; the machine’s page shows which of them hold there.`}</p>
        <div className="rules-amounts">
          {FACTORS.map(({ name, label }) => (
            <Form.Item key={name} name={['intervals', 'factors', name]} label={label} rules={needed}>
              <NumberField min={0.1} max={10} step={0.05} inputMode="decimal" prefix="×" />
            </Form.Item>
          ))}
          {SHARES.map(({ name, label }) => (
            <Form.Item key={name} name={['intervals', 'factors', name]} label={label} rules={needed}>
              <NumberField min={0} max={0.2} step={0.01} inputMode="decimal" />
            </Form.Item>
          ))}
        </div>
      </details>
    </>
  );
}
