import { Button, Form, Input, InputNumber, Segmented, Switch } from 'antd';
import { useState } from 'react';
import { api, unwrap, type Schemas } from '../api/client';
import { useAssessment, useJobWrite, useMachine, useWrite } from '../api/queries';
import { capital, partName, useTemperature } from '../lib/format';
import { Refusal } from '../shell/Refusal';
import { differences } from './differences';
import { RunLog } from './RunLog';

interface Fields {
  workload: string;
  minutes: number;
  ambient: number | null;
  mode: 'fixed' | 'auto';
  percent: number | null;
  rpm: number | null;
  settings: string;
  powerWatts: number | null;
  clockMhz: number | null;
  score: number | null;
  throttled: boolean;
  parts: Record<string, number | null>;
}

/** A run typed in at the bench, or taken from the newest readings. The second run inherits the first one's conditions. */
export function RunForm({
  job,
  phase,
  reload,
}: {
  job: Schemas['JobAnswer'];
  phase: 'before' | 'after';
  reload: () => void;
}) {
  const [form] = Form.useForm<Fields>();
  const temperature = useTemperature();
  const machine = useMachine(job.asset);
  const assessment = useAssessment(job.asset);
  const [warnings, setWarnings] = useState<string[]>([]);
  const first = phase === 'after' ? job.before : null;
  const parts = machine.data?.parts.map((p) => p.part ?? '') ?? [];

  const toRun = (f: Fields): Schemas['RunDto'] => ({
    workload: f.workload,
    minutes: f.minutes,
    ambientCelsius: typeof f.ambient === 'number' ? temperature.toCelsius(f.ambient) : null,
    ambientSpreadKelvin: null,
    fan: { mode: f.mode, percent: f.percent ?? null, rpm: f.rpm ?? null },
    settings: f.settings,
    powerWatts: f.powerWatts ?? null,
    clockMhz: f.clockMhz ?? null,
    score: f.score ?? null,
    throttled: f.throttled,
    parts: parts
      .filter((p) => typeof f.parts[p] === 'number')
      .map((p) => ({ part: p, celsius: temperature.toCelsius(f.parts[p]!), resolutionKelvin: null })),
  });
  const fill = (run: Schemas['RunDto']) =>
    form.setFieldsValue({
      workload: run.workload ?? '',
      minutes: run.minutes ?? 20,
      ambient: run.ambientCelsius === null ? null : temperature.fromCelsius(run.ambientCelsius),
      mode: run.fan?.mode ?? 'auto',
      percent: run.fan?.percent ?? null,
      rpm: run.fan?.rpm ?? null,
      settings: run.settings ?? 'stock',
      powerWatts: run.powerWatts,
      clockMhz: run.clockMhz,
      score: run.score,
      throttled: run.throttled ?? false,
      parts: Object.fromEntries(
        (run.parts ?? []).map((p) => [p.part ?? '', temperature.fromCelsius(p.celsius ?? 0)]),
      ),
    });
  const compare = () =>
    setWarnings(first ? differences(first, toRun({ ...form.getFieldsValue(true) } as Fields)) : []);

  const save = useJobWrite((fields: Fields) =>
    unwrap(
      api.PUT('/api/v1/jobs/{id}/runs/{phase}', {
        params: { path: { id: job.id, phase } },
        body: { run: toRun(fields), version: job.version },
      }),
    ),
  );
  const take = useWrite(async () => {
    fill(await unwrap(api.GET('/api/v1/jobs/{id}/runs/from-readings', { params: { path: { id: job.id } } })));
    compare();
  });

  const fromLog = (log: Schemas['RunLogAnswer']) => {
    form.setFieldsValue({
      minutes: Math.max(1, Math.round(log.minutes * 10) / 10),
      ambient: log.ambientCelsius === null ? null : temperature.fromCelsius(log.ambientCelsius),
      percent: log.fanPercent,
      rpm: log.fanRpm,
      powerWatts: log.powerWatts,
      clockMhz: log.clockMhz,
      throttled: log.throttledFrom !== null,
      parts: Object.fromEntries(log.parts.map((p) => [p.part, temperature.fromCelsius(p.settledCelsius)])),
    });
    compare();
  };

  const ambientNow = assessment.data?.ambientCelsius ?? null;
  const needed = (what: string) => [{ required: true, message: `${what} is needed.` }];
  return (
    <>
      <div className="run-sources">
        <Button loading={take.isPending} onClick={() => take.mutate(undefined)}>
          Take the newest readings
        </Button>{' '}
        <RunLog onTake={fromLog} /> <span className="quiet small">or type in what the run showed:</span>
      </div>
      {take.isError && <Refusal error={take.error} />}
      {save.isError && <Refusal error={save.error} />}
      {warnings.length > 0 && (
        <div className="bench-caution" role="status">
          <strong>Not like the before-run.</strong>
          <ul style={{ margin: '4px 0 0', paddingLeft: 18 }}>
            {warnings.map((w) => (
              <li key={w}>{w}</li>
            ))}
          </ul>
        </div>
      )}
      <Form<Fields>
        form={form}
        layout="vertical"
        requiredMark={false}
        size="large"
        onValuesChange={compare}
        initialValues={{
          workload: first?.workload ?? 'steady compute',
          minutes: first?.minutes ?? 20,
          ambient: null,
          mode: first?.fan?.mode ?? 'fixed',
          percent: first?.fan?.percent ?? null,
          rpm: null,
          settings: first?.settings ?? 'stock',
          powerWatts: null,
          clockMhz: null,
          score: null,
          throttled: false,
          parts: {},
        }}
        onFinish={(fields) =>
          void save
            .mutateAsync({ ...(form.getFieldsValue(true) as Fields), ...fields })
            .then(reload, () => undefined)
        }
      >
        <div className="run-grid">
          <Form.Item name="workload" label="Load" rules={needed('The load')}>
            <Input maxLength={200} />
          </Form.Item>
          <Form.Item name="minutes" label="Minutes under load" rules={needed('The time')}>
            <InputNumber min={1} max={10000} inputMode="decimal" />
          </Form.Item>
          <Form.Item
            name="ambient"
            label={`Air at the intake, °${temperature.unit}`}
            extra={
              ambientNow === null
                ? 'Left empty, the uncertainty more than doubles.'
                : `its readings say ${temperature.exact(ambientNow)}`
            }
          >
            <InputNumber inputMode="decimal" step={0.5} />
          </Form.Item>
          <Form.Item name="settings" label="Settings" rules={needed('Their name')}>
            <Input maxLength={200} />
          </Form.Item>
          {parts.map((p) => (
            <Form.Item
              key={p}
              name={['parts', p]}
              label={`${capital(partName(p))}, settled, °${temperature.unit}`}
            >
              <InputNumber inputMode="decimal" min={-40} max={400} />
            </Form.Item>
          ))}
          <Form.Item name="mode" label="Fan">
            <Segmented
              block
              options={[
                { label: 'fixed', value: 'fixed' },
                { label: 'auto', value: 'auto' },
              ]}
            />
          </Form.Item>
          <Form.Item name="percent" label="Fan, %">
            <InputNumber min={0} max={100} inputMode="numeric" />
          </Form.Item>
          <Form.Item name="rpm" label="Fan, rpm">
            <InputNumber min={0} max={100000} inputMode="numeric" />
          </Form.Item>
          <Form.Item name="powerWatts" label="Power, W">
            <InputNumber min={0} max={10000} inputMode="decimal" />
          </Form.Item>
          <Form.Item name="clockMhz" label="Clock, MHz">
            <InputNumber min={0} inputMode="decimal" />
          </Form.Item>
          <Form.Item name="score" label="Score">
            <InputNumber min={0} inputMode="decimal" />
          </Form.Item>
          <Form.Item name="throttled" label="It throttled" valuePropName="checked">
            <Switch aria-label="It throttled" />
          </Form.Item>
        </div>
        <Button type="primary" htmlType="submit" block loading={save.isPending} style={{ height: 54 }}>
          {phase === 'before' ? 'Keep as the before-run' : 'Keep as the after-run'}
        </Button>
      </Form>
    </>
  );
}
