import { Button, Segmented } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { clock } from '../../lib/format';
import { ModelPlan } from '../../models/ModelPlan';
import type { BenchJob } from '../useBenchJob';
import { Counting } from './Counting';
import { GateCheck } from './GateCheck';
import { Inspection, isInspection } from './Inspection';
import { Method } from './Method';
import { duration, useNow } from './Timers';

/** One step: what to do, what can go wrong, what must be confirmed, and the tick. */
export function StepView({
  job,
  write,
  step,
  onDone,
  onSkip,
  onBack,
}: BenchJob & {
  step: Schemas['StepAnswer'];
  onDone: () => void;
  onSkip: () => void;
  onBack: (() => void) | undefined;
}) {
  const [checks, setChecks] = useState<readonly string[]>(step.checks);
  const [busy, setBusy] = useState(false);
  const timer = job.timers.find((t) => t.timer === step.id && !t.stopped);
  const now = useNow(timer !== undefined);
  const left = timer ? Date.parse(timer.startedAt) + timer.seconds * 1000 - now : null;
  const waits = step.timer?.required === true && (left === null || left > 0);
  const missing = step.gate.filter((g) => !checks.includes(g));
  const finished = step.doneAt !== null || step.skipped;
  const kind = step.id.split('~')[0];
  const tick = async () => {
    if (busy) return;
    setBusy(true);
    try {
      await write({ kind: 'step-done', step: step.id, checks: [...checks] });
      onDone();
    } finally {
      setBusy(false);
    }
  };
  const startTimer = () =>
    step.timer && void write({ kind: 'timer-started', timer: step.id, seconds: step.timer.seconds });
  return (
    <>
      <h1>{step.do}</h1>
      {step.cautions.length > 0 && (
        <ul className="bench-caution bench-cautions" aria-label="Mind">
          {step.cautions.map((c) => (
            <li key={c.text}>
              {c.text}
              {c.source && (
                <span className="quiet small">
                  {' '}
                  Published: {c.source}, from memory; check the current edition.
                </span>
              )}
            </li>
          ))}
        </ul>
      )}
      {step.order.length > 0 && step.form === 'tick' && (
        <ModelPlan
          notes={job.notes}
          show={kind === 'pads-on' ? 'pads' : 'screws'}
          order={step.order}
          only={kind === 'tighten' ? 'cooler' : undefined}
        />
      )}
      {(step.form === 'screws-out' || step.form === 'screws-in') && (
        <Counting job={job} write={write} what="screws" going={step.form === 'screws-out' ? 'out' : 'in'} />
      )}
      {(step.form === 'connectors-out' || step.form === 'connectors-in') && (
        <Counting
          job={job}
          write={write}
          what="connectors"
          going={step.form === 'connectors-out' ? 'out' : 'in'}
        />
      )}
      {isInspection(step.form) && <Inspection job={job} write={write} form={step.form} />}
      {step.form === 'chip' && (
        <Segmented<Schemas['ChipKind'] | 'unknown'>
          block
          size="large"
          aria-label="The chip"
          value={job.notes.chip ?? 'unknown'}
          onChange={(chip) => chip !== 'unknown' && void write({ kind: 'chip-seen', chip })}
          options={[
            { label: 'metal lid', value: 'lidded' },
            { label: 'bare chip', value: 'bare' },
            { label: 'not seen yet', value: 'unknown' },
          ]}
        />
      )}
      {!finished && <Method job={job} write={write} step={kind!} />}
      {step.timer && !finished && !step.timer.required && (
        <Button className="bench-wide" onClick={startTimer} disabled={left !== null && left > 0}>
          {left !== null && left > 0
            ? `${step.timer.name}: ${duration(left)}`
            : `Timer, ${step.timer.name}: ${duration(step.timer.seconds * 1000)}`}
        </Button>
      )}
      {step.gate.length > 0 && (
        <fieldset className="bench-gate" disabled={finished}>
          <legend>Confirm each</legend>
          {step.gate.map((g) => (
            <GateCheck
              key={g}
              checked={checks.includes(g)}
              onChange={(on) => setChecks(on ? [...checks, g] : checks.filter((c) => c !== g))}
            >
              {g}
            </GateCheck>
          ))}
        </fieldset>
      )}
      <div className="bench-bar">
        <div>
          <Button disabled={!onBack} onClick={onBack}>
            Back
          </Button>
          {finished ? (
            <Button type="primary" onClick={onDone}>
              On to the next open step
            </Button>
          ) : waits && left === null ? (
            <Button type="primary" onClick={startTimer}>
              Start{' '}
              {step.timer!.seconds >= 60
                ? duration(step.timer!.seconds * 1000)
                : `${String(step.timer!.seconds)} seconds`}
            </Button>
          ) : (
            <Button
              type="primary"
              loading={busy}
              disabled={waits || missing.length > 0}
              onClick={() => void tick()}
            >
              {waits
                ? `Wait ${duration(left ?? 0)}`
                : missing.length > 0
                  ? `${String(missing.length)} to confirm`
                  : 'Done'}
            </Button>
          )}
        </div>
      </div>
      {finished && (
        <Button type="text" onClick={() => void write({ kind: 'step-undone', step: step.id })}>
          {step.doneAt ? `Done ${clock(step.doneAt)}: take the tick back` : 'Left out: take it in again'}
        </Button>
      )}
      {!finished && step.mayBeSkipped && (
        <Button
          type="text"
          onClick={() =>
            step.optional
              ? void write({ kind: 'step-skipped', step: step.id, reason: null }).then(onDone)
              : onSkip()
          }
        >
          Leave this step out{step.optional ? '' : ' …'}
        </Button>
      )}
    </>
  );
}
