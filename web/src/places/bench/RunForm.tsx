import { t } from '@lingui/core/macro';
import { Button, Form, Input, Segmented, Select, Switch } from 'antd';
import { useMemo, useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { useAssessment, useWrite } from '../../api/queries';
import { capital, partName, useTemperature } from '../../words/format';
import { Refusal } from '../../ui/Refusal';
import { differences } from './differences';
import { LiveRun } from './LiveRun';
import {
  conditionsOf,
  fieldsOfLog,
  fieldsOfRun,
  runOf,
  startingPoint,
  tooShort,
  type Fields,
} from './runFields';
import { RunLog } from './RunLog';
import type { BenchJob } from './useBenchJob';
import { NumberField } from '../../ui/NumberField';
import { partnersOf } from './partners';

type Run = Schemas['RunAnswer'];

const BUTTONS: Record<Schemas['RunPhase'], string> = {
  before: t`Keep as the before-run`,
  after: t`Keep as the after-run`,
  recheck: t`Keep as the second look`,
};

/**
 * A run measured at the bench, taken from a log or the newest readings, or typed in. Conditions come from the first run, or
 * from what the model's notes remember, so that before and after match.
 */
export function RunForm({
  job,
  write,
  phase,
  onKept,
}: BenchJob & { phase: Schemas['RunPhase']; onKept?: () => void }) {
  const [form] = Form.useForm<Fields>();
  const temperature = useTemperature();
  const assessment = useAssessment(job.asset);
  const partners = useMemo(() => (phase === 'before' ? [] : partnersOf(job.runs, phase)), [job.runs, phase]);
  const [partner, setPartner] = useState(() => partners.findIndex((p) => !p.paired));
  const first = (partners[partner] ?? partners[0])?.run ?? null;
  const parts = job.parts.map((p) => p.part);
  const draft = `pyrometron.draft.${String(job.id)}.${phase}`;
  const initial = useMemo(
    () => startingPoint(first, job.notes.protocol, draft),
    [first, job.notes.protocol, draft],
  );
  const minutes = (Form.useWatch('minutes', form) as typeof initial.minutes | undefined) ?? initial.minutes;
  const air = (Form.useWatch('air', form) as typeof initial.air | undefined) ?? initial.air;
  const mode = (Form.useWatch('mode', form) as typeof initial.mode | undefined) ?? initial.mode;

  const toRun = (fields: Fields) => runOf(fields, parts, temperature);
  const all = () => form.getFieldsValue(true) as Fields;
  const warningsOf = (fields: Fields) => {
    const run = toRun(fields);
    return [...(first ? differences(first, run) : []), ...tooShort(run, job.complaint, phase)];
  };
  const [warnings, setWarnings] = useState(() => warningsOf(initial));
  const choosePartner = (at: number) => {
    const run = partners[at]!.run;
    setPartner(at);
    form.setFieldsValue(conditionsOf(run));
    setWarnings([...differences(run, toRun(all())), ...tooShort(toRun(all()), job.complaint, phase)]);
  };
  const compare = () => {
    localStorage.setItem(draft, JSON.stringify(all()));
    setWarnings(warningsOf(all()));
  };
  const shown = (value: number | null | undefined) =>
    typeof value === 'number' ? temperature.fromCelsius(value) : null;
  const fill = (run: Run) => {
    form.setFieldsValue(fieldsOfRun(run, shown));
    compare();
  };
  const take = useWrite(async () =>
    fill(
      await unwrap(
        api.GET('/api/v1/jobs/{id}/runs/from-readings', {
          params: { path: { id: job.id }, query: { phase } },
        }),
      ),
    ),
  );
  const fromLog = (log: Schemas['RunLogAnswer'], source: Schemas['RunSource'] = 'log') => {
    form.setFieldsValue(fieldsOfLog(log, source, shown));
    compare();
  };

  const ambientNow = assessment.data?.ambientCelsius ?? null;
  const needed = (what: string) => [{ required: true, message: t`${what} is needed.` }];
  return (
    <>
      <LiveRun
        job={job}
        write={write}
        phase={phase}
        minutes={minutes}
        onTake={(log) => fromLog(log, 'probe')}
      />
      <div className="run-sources">
        <Button loading={take.isPending} onClick={() => take.mutate(undefined)}>
          {t`Take the newest readings`}
        </Button>{' '}
        <RunLog onTake={(log) => fromLog(log)} />{' '}
        <span className="quiet small">{t`or type in what the run showed:`}</span>
      </div>
      {partners.length > 1 && (
        <label className="run-partner">
          {t`Which run before the work it repeats`}
          <Select
            value={Math.max(0, partner)}
            onChange={choosePartner}
            options={partners.map((p, value) => ({
              value,
              label: p.paired ? t`${p.label} (done)` : p.label,
            }))}
          />
        </label>
      )}
      {take.isError && <Refusal error={take.error} />}
      {warnings.length > 0 && (
        <div className="bench-caution" role="status">
          <strong>{first ? t`Not like the before-run.` : t`Before you keep it.`}</strong>
          <ul className="bullets">
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
        onValuesChange={(changed: Partial<Fields>) => {
          // A temperature that was typed over is no longer what the log or the readings said.
          if (changed.parts)
            form.setFieldsValue({
              source: 'typed',
              settled: null,
              shareOfRise: null,
              slope: null,
              ramp: null,
            });
          compare();
        }}
        initialValues={initial}
        onFinish={() => {
          const run = toRun(all());
          if (run.parts.length === 0) {
            form.setFields([
              { name: ['parts', parts[0]!], errors: [t`At least one part needs its temperature.`] },
            ]);
            return;
          }
          void write({ kind: 'run-measured', phase, run }).then(() => {
            localStorage.removeItem(draft);
            onKept?.();
          });
        }}
      >
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
                  <Button
                    type="link"
                    size="small"
                    className="flush"
                    onClick={() => {
                      form.setFieldValue('ambient', temperature.fromCelsius(ambientNow));
                      compare();
                    }}
                  >
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
              <Form.Item
                name={['parts', p]}
                label={t`${capital(partName(p))}, settled, °${temperature.unit}`}
              >
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
        <Button type="primary" htmlType="submit" block style={{ height: 54 }}>
          {BUTTONS[phase]}
        </Button>
      </Form>
    </>
  );
}
