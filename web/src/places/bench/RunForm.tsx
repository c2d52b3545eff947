import { t } from '@lingui/core/macro';
import { Button, Form, Select } from 'antd';
import { useMemo, useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { useAssessment, useWrite } from '../../api/queries';
import { useTemperature } from '../../words/format';
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
import { partnersOf } from './partners';
import { RunInputs } from './RunInputs';

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
        <RunInputs
          parts={parts}
          air={air}
          mode={mode}
          ambientNow={assessment.data?.ambientCelsius ?? null}
          onAmbient={(celsius) => {
            form.setFieldValue('ambient', temperature.fromCelsius(celsius));
            compare();
          }}
        />
        <Button type="primary" htmlType="submit" block style={{ height: 54 }}>
          {BUTTONS[phase]}
        </Button>
      </Form>
    </>
  );
}
