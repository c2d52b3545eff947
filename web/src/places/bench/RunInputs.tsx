import { t } from '@lingui/core/macro';
import { Button, Form, Input, Segmented, Switch } from 'antd';
import { needed } from '../../ui/EditDialog';
import { NumberField } from '../../ui/NumberField';
import { capital, partName, useTemperature } from '../../words/format';
import type { Fields } from './runFields';

/** What is written down of a run, in the reader's units. */
export function RunInputs({
  parts,
  air,
  mode,
  ambientNow,
  onAmbient,
}: {
  parts: readonly string[];
  /** How the air was come by, and how the fan ran: they decide which fields there are. */
  air: Fields['air'];
  mode: Fields['mode'];
  /** What the machine's readings say of its air now, °C. */
  ambientNow: number | null;
  onAmbient: (celsius: number) => void;
}) {
  const temperature = useTemperature();
  return (
    <div className="run-grid">
      <Form.Item name="workload" label={t`Load`} rules={needed(t`The load`)}>
        <Input maxLength={200} />
      </Form.Item>
      <Form.Item name="minutes" label={t`Minutes under load`} rules={needed(t`The time`)}>
        <NumberField min={1} max={10000} inputMode="decimal" />
      </Form.Item>
      <Form.Item name="air" label={t`Air at the intake`} className="run-wide">
        <Segmented
          aria-label={t`Air at the intake`}
          block
          options={[
            { label: t`measured`, value: 'measured' },
            { label: t`guessed`, value: 'guessed' },
            { label: t`not known`, value: 'unknown' },
          ]}
        />
      </Form.Item>
      {air === 'measured' && (
        <Form.Item
          name="ambient"
          label={t`Air, °${temperature.unit}`}
          rules={needed(t`The air`)}
          extra={
            ambientNow !== null && (
              <Button type="link" size="small" className="flush" onClick={() => onAmbient(ambientNow)}>
                {t`its readings say ${temperature.exact(ambientNow)}`}
              </Button>
            )
          }
        >
          <NumberField inputMode="decimal" step={0.5} />
        </Form.Item>
      )}
      {air === 'guessed' && (
        <>
          <Form.Item name="from" label={t`From, °${temperature.unit}`} rules={needed(t`The least`)}>
            <NumberField inputMode="decimal" step={0.5} />
          </Form.Item>
          <Form.Item
            name="to"
            label={t`To, °${temperature.unit}`}
            rules={needed(t`The most`)}
            extra={t`half of the range goes into the uncertainty`}
          >
            <NumberField inputMode="decimal" step={0.5} />
          </Form.Item>
        </>
      )}
      {air === 'unknown' && <p className="quiet run-wide">{t`The uncertainty more than doubles.`}</p>}
      <Form.Item name="start" label={t`Hottest at start, °${temperature.unit}`}>
        <NumberField inputMode="decimal" min={-40} max={400} placeholder={t`cold`} />
      </Form.Item>
      {parts.map((p) => (
        <div key={p} className="run-part">
          <Form.Item name={['parts', p]} label={t`${capital(partName(p))}, settled, °${temperature.unit}`}>
            <NumberField inputMode="decimal" min={-40} max={400} />
          </Form.Item>
          <Form.Item name={['maxima', p]} label={t`maximum`}>
            <NumberField
              inputMode="decimal"
              min={-40}
              max={400}
              aria-label={t`${capital(partName(p))}, maximum`}
            />
          </Form.Item>
        </div>
      ))}
      <Form.Item name="mode" label={t`Fan`} className="run-wide">
        <Segmented
          aria-label={t`Fan`}
          block
          options={[
            { label: t`fixed`, value: 'fixed' },
            { label: t`full`, value: 'full' },
            { label: t`automatic`, value: 'auto' },
          ]}
        />
      </Form.Item>
      {mode !== 'full' && (
        <Form.Item name="percent" label={t`Fan, %`}>
          <NumberField min={0} max={100} inputMode="numeric" />
        </Form.Item>
      )}
      <Form.Item name="rpm" label={t`Fan, rpm`}>
        <NumberField min={0} max={100000} inputMode="numeric" />
      </Form.Item>
      <Form.Item name="settings" label={t`Settings`} rules={needed(t`Their name`)}>
        <Input maxLength={200} />
      </Form.Item>
      <Form.Item name="position" label={t`How it stands`}>
        <Input maxLength={200} placeholder={t`in its rack, flat, propped`} />
      </Form.Item>
      <Form.Item name="powerWatts" label={t`Power, W`}>
        <NumberField min={0} max={10000} inputMode="decimal" />
      </Form.Item>
      <Form.Item name="clockMhz" label={t`Clock, MHz`}>
        <NumberField min={0} inputMode="decimal" />
      </Form.Item>
      <Form.Item name="score" label={t`Score`}>
        <NumberField min={0} inputMode="decimal" />
      </Form.Item>
      <Form.Item name="scoreUnit" label={t`Score counts`}>
        <Input maxLength={40} placeholder={t`frames, hashes, points`} />
      </Form.Item>
      <Form.Item name="failed" label={t`It failed after, minutes`}>
        <NumberField min={0} max={10000} inputMode="decimal" placeholder={t`it ran through`} />
      </Form.Item>
      <Form.Item name="throttled" label={t`It throttled`} valuePropName="checked">
        <Switch aria-label={t`It throttled`} />
      </Form.Item>
    </div>
  );
}
