import { t } from '@lingui/core/macro';
import { Button, Segmented } from 'antd';
import { useEffect, useEffectEvent, useState } from 'react';
import type { Schemas } from '../../../api/client';
import { capital, clock } from '../../../words/format';
import { ModelPlan } from '../../../ui/ModelPlan';
import type { BenchJob } from '../useBenchJob';
import { STAGES } from '../../../words/work';
import { Counting } from './Counting';
import { countsOf } from './counts';
import { GateCheck } from './GateCheck';
import { Inspection, isInspection } from './Inspection';
import { Method } from './Method';
import { kindOf } from './screens';
import { duration, useNow } from './Timers';
import { gateWords, say } from '../../../words/message';

type Step = Schemas['StepAnswer'];

const COUNTED: Partial<Record<Schemas['StepForm'], { what: Schemas['CountOf']; going: 'out' | 'in' }>> = {
  'screws-out': { what: 'screws', going: 'out' },
  'screws-in': { what: 'screws', going: 'in' },
  'connectors-out': { what: 'connectors', going: 'out' },
  'connectors-in': { what: 'connectors', going: 'in' },
};

/** One look is one tap: nothing else is asked for on these. */
const ONE_GRADE: ReadonlySet<Schemas['StepForm']> = new Set(['seal-inspection', 'corrosion-inspection']);

/**
 * One screen of the card: what to do, what can go wrong, what must be confirmed, and the tick. Plain ticks that lead to the
 * last step stand above it, and are ticked with it.
 */
export function StepView({
  job,
  write,
  screen,
  onHold,
  onDone,
  onSkip,
  onBack,
}: BenchJob & {
  /** In the order of the card; the last one may ask for more than a tick. */
  screen: readonly Step[];
  /** Told while the steps are ticked one after the other: the screen stays until the last of them. */
  onHold: (holds: boolean) => void;
  onDone: () => void;
  onSkip: (step: Step) => void;
  onBack: (() => void) | undefined;
}) {
  const step = screen.at(-1)!;
  const [checks, setChecks] = useState<readonly string[]>(step.checks);
  const [busy, setBusy] = useState(false);
  const timer = job.timers.find((t) => t.timer === step.id && !t.stopped);
  const now = useNow(timer !== undefined);
  const left = timer ? Date.parse(timer.startedAt) + timer.seconds * 1000 - now : null;
  const waits = step.timer?.required === true && (left === null || left > 0);
  const missing = step.gate.filter((g) => !checks.includes(g));
  const finished = !busy && (step.doneAt !== null || step.skipped);
  const kind = kindOf(step);
  const counted = COUNTED[step.form];
  const counts = counted && countsOf(job, counted.what, counted.going);
  const uncounted = counts !== undefined && (counts.open.length > 0 || counts.nothing);

  const tick = async (confirmed: readonly string[] = checks) => {
    if (busy) return;
    setBusy(true);
    onHold(true);
    try {
      for (const s of screen)
        await write({ kind: 'step-done', step: s.id, checks: s === step ? [...confirmed] : [] });
      onDone();
    } finally {
      onHold(false);
      setBusy(false);
    }
  };
  /** Counts all that one tap counts, and goes on with everything confirmed. */
  const tickAllCounted = async () => {
    for (const c of counts!.listed) await write({ kind: 'counted', ...c });
    await tick(step.gate);
  };
  const check = (item: string, on: boolean) => {
    const next = on ? [...checks, item] : checks.filter((c) => c !== item);
    setChecks(next);
    // The last thing confirmed is the tick.
    if (on && step.gate.every((g) => next.includes(g)) && !waits && !uncounted) void tick(next);
  };
  const startTimer = () =>
    step.timer && void write({ kind: 'timer-started', timer: step.id, seconds: step.timer.seconds });
  const ringsAt = step.timer?.required && timer ? Date.parse(timer.startedAt) + timer.seconds * 1000 : null;
  const onRung = useEffectEvent(() => {
    if (!finished && missing.length === 0) void tick();
  });
  useEffect(() => {
    if (ringsAt === null) return;
    const ring = setTimeout(() => onRung(), Math.max(0, ringsAt - Date.now()));
    return () => clearTimeout(ring);
  }, [ringsAt]);

  return (
    <>
      {screen.length > 1 && <h1>{t`${STAGES[screen[0]!.stage]}, in this order:`}</h1>}
      <ol className={screen.length > 1 ? 'bench-together' : 'bench-alone'}>
        {screen.map((s) => (
          <li key={s.id}>
            {screen.length > 1 ? <h2>{say(s.message)}</h2> : <h1>{say(s.message)}</h1>}
            <Cautions of={s} />
            {screen.length > 1 && s !== step && (
              <LeaveOut step={s} write={write} onSkip={onSkip} onDone={onDone} />
            )}
          </li>
        ))}
      </ol>
      {step.order.length > 0 && step.form === 'tick' && (
        <ModelPlan
          notes={job.notes}
          show={kind === 'pads-on' ? 'pads' : 'screws'}
          order={step.order}
          only={kind === 'tighten' ? 'cooler' : undefined}
        />
      )}
      {counted && <Counting job={job} write={write} {...counted} />}
      {isInspection(step.form) && (
        <Inspection
          job={job}
          write={write}
          form={step.form}
          {...(ONE_GRADE.has(step.form) && !finished ? { onGiven: () => void tick() } : {})}
        />
      )}
      {step.form === 'chip' && (
        <ChipChoice job={job} write={write} onChosen={() => !finished && void tick()} />
      )}
      {!finished && <Method job={job} write={write} step={kind} />}
      {step.timer && !finished && !step.timer.required && (
        <Button className="bench-wide" onClick={startTimer} disabled={left !== null && left > 0}>
          {left !== null && left > 0
            ? `${step.timer.name}: ${duration(left)}`
            : t`Timer, ${step.timer.name}: ${duration(step.timer.seconds * 1000)}`}
        </Button>
      )}
      {step.gate.length > 0 && (
        <fieldset className="bench-gate" disabled={finished}>
          <legend>{step.confirmedOneByOne ? t`Confirm each` : t`Confirm`}</legend>
          {step.gate.map((g, i) => (
            <GateCheck key={g} checked={checks.includes(g)} onChange={(on) => check(g, on)}>
              {gateWords(step, i)}
            </GateCheck>
          ))}
        </fieldset>
      )}
      <div className="bench-bar">
        <div>
          <Button disabled={!onBack} onClick={onBack}>
            {t`Back`}
          </Button>
          {finished ? (
            <Button type="primary" onClick={onDone}>
              {t`On to the next open step`}
            </Button>
          ) : waits && left === null ? (
            <Button type="primary" onClick={startTimer}>
              {t`Start ${
                step.timer!.seconds >= 60
                  ? duration(step.timer!.seconds * 1000)
                  : t`${String(step.timer!.seconds)} seconds`
              }`}
            </Button>
          ) : counts && counts.listed.length > 0 && counts[counted.going === 'out' ? 'out' : 'back'] === 0 ? (
            <Button type="primary" loading={busy} onClick={() => void tickAllCounted()}>
              {counted.going === 'out' ? t`All as listed` : t`All ${String(counts.out)} back in`}
              {missing.length > 0 && t`, and confirmed`}
            </Button>
          ) : (
            <Button
              type="primary"
              loading={busy}
              disabled={
                waits || (missing.length > 0 && step.confirmedOneByOne) || (uncounted && counts.nothing)
              }
              onClick={() => void tick(step.confirmedOneByOne ? checks : step.gate)}
            >
              {waits
                ? t`Wait ${duration(left ?? 0)}`
                : missing.length > 0
                  ? step.confirmedOneByOne
                    ? t`${String(missing.length)} to confirm`
                    : missing.length === 1
                      ? t`Confirmed`
                      : t`All ${String(missing.length)} confirmed`
                  : screen.length > 1
                    ? t`Done, all ${String(screen.length)}`
                    : t`Done`}
            </Button>
          )}
        </div>
      </div>
      {finished && (
        <Button type="text" onClick={() => void write({ kind: 'step-undone', step: step.id })}>
          {step.doneAt ? t`Done ${clock(step.doneAt)}: take the tick back` : t`Left out: put it back in`}
        </Button>
      )}
      {!finished && <LeaveOut step={step} write={write} onSkip={onSkip} onDone={onDone} />}
    </>
  );
}

function Cautions({ of }: { of: Step }) {
  if (of.cautions.length === 0) return null;
  return (
    <ul className="bench-caution bench-cautions" aria-label={t`Mind`}>
      {of.cautions.map((c) => (
        <li key={c.text}>
          {say(c.message)}
          {c.source && (
            <span className="quiet small">
              {' '}
              {t`Published: ${c.source}, from memory; check the current edition.`}
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}

function LeaveOut({
  step,
  write,
  onSkip,
  onDone,
}: Pick<BenchJob, 'write'> & { step: Step; onSkip: (step: Step) => void; onDone: () => void }) {
  if (!step.mayBeSkipped) return null;
  return (
    <Button
      type="text"
      onClick={() =>
        step.optional
          ? void write({ kind: 'step-skipped', step: step.id, reason: null }).then(onDone)
          : onSkip(step)
      }
    >
      {t`Leave this step out`}
      {step.optional ? '' : ' …'}
    </Button>
  );
}

function ChipChoice({ job, write, onChosen }: BenchJob & { onChosen: () => void }) {
  return (
    <Segmented<Schemas['ChipKind'] | 'unknown'>
      block
      size="large"
      aria-label={t`The chip`}
      value={job.notes.chip ?? 'unknown'}
      onChange={(chip) => chip !== 'unknown' && void write({ kind: 'chip-seen', chip }).then(onChosen)}
      options={[
        { label: capital(t`metal lid`), value: 'lidded' },
        { label: capital(t`bare chip`), value: 'bare' },
        { label: t`Not seen yet`, value: 'unknown' },
      ]}
    />
  );
}
