import { t } from '@lingui/core/macro';
import { Button, Input, Modal, Select } from 'antd';
import { useEffect, useRef, useState } from 'react';
import type { Schemas, ServiceLevel } from '../../../api/client';
import { capital, clock, fullDay } from '../../../words/format';
import { AskReason } from '../../../ui/AskReason';
import type { BenchJob } from '../useBenchJob';
import { levelChoices, levelName, STAGES } from '../../../words/work';
import { isOpen, screenOf } from './screens';
import { StepView } from './StepView';
import { BookMinutes } from './Used';
import { say } from '../../../words/message';

/** The work itself, one step at a time. */
export function Work({ job, write }: BenchJob) {
  const [chosen, setChosen] = useState<string | null>(null);
  const [dialog, setDialog] = useState<'level' | 'add' | null>(null);
  const [leaving, setLeaving] = useState<Schemas['StepAnswer'] | null>(null);
  const [held, setHeld] = useState<readonly string[] | null>(null);
  const first = job.steps.find((s) => s.id === chosen) ?? job.steps.find(isOpen) ?? null;
  const screen = held
    ? job.steps.filter((s) => held.includes(s.id))
    : first
      ? screenOf(job.steps, first)
      : [];
  const step = screen.at(-1) ?? null;
  const at = screen[0] ? job.steps.indexOf(screen[0]) : -1;
  const done = job.steps.filter((s) => !isOpen(s)).length;
  const head = useRef<HTMLParagraphElement>(null);
  const work = useRef<HTMLDivElement>(null);
  const shown = useRef(step?.id);
  useEffect(() => {
    // The next step begins at its top, wherever the one before was left.
    if (shown.current !== step?.id) {
      head.current?.scrollIntoView({ block: 'center' });
      // By keyboard the next key is at hand: the first thing to confirm or to grade, else the tick.
      const first = step?.confirmedOneByOne ? '.bench-gate input:not(:checked)' : '.grades button';
      const primary = '.bench-bar .ant-btn-primary:not(:disabled)';
      const find = (what: string) => work.current?.querySelector<HTMLElement>(what);
      (find(first) ?? find(primary))?.focus({ preventScroll: true });
    }
    shown.current = step?.id;
  }, [step?.id, step?.confirmedOneByOne]);
  // A long form may have stood here before: the first step begins at the top.
  useEffect(() => {
    window.scrollTo({ top: 0 });
  }, []);
  return (
    <div ref={work}>
      <div className="bench-ticks" aria-hidden="true">
        {job.steps.map((s) => (
          <span
            key={s.id}
            className={screen.includes(s) ? 'current' : isOpen(s) ? '' : s.skipped ? 'left-out' : 'done'}
          />
        ))}
      </div>
      <p className="quiet" role="status" ref={head}>
        {step
          ? t`Step ${String(at + 1)}${screen.length > 1 ? t` to ${String(at + screen.length)}` : ''} of ${String(job.steps.length)} · ${STAGES[step.stage]}`
          : t`All ${String(job.steps.length)} steps done`}
      </p>
      {job.asked && (
        <p className="bench-caution">
          <strong>{t`What was found needs more: ${levelName(job.asked.level)}.`}</strong>{' '}
          {capital(say(job.asked.message))}.{' '}
          <Button
            size="small"
            onClick={() =>
              // Under warranty the maker's answer is asked for with it.
              job.warrantyUntil !== null && job.warrantyAnswer === null
                ? setDialog('level')
                : void write({
                    kind: 'level-changed',
                    level: job.asked!.level,
                    reason: job.asked!.because,
                    fan: null,
                  })
            }
          >
            {t`Make it a ${levelName(job.asked.level)}`}
          </Button>
        </p>
      )}
      {step ? (
        <StepView
          key={screen.at(-1)!.id}
          job={job}
          write={write}
          screen={screen}
          onHold={(holds) => setHeld(holds ? screen.map((s) => s.id) : null)}
          onDone={() => setChosen(null)}
          onSkip={setLeaving}
          onBack={at > 0 ? () => setChosen(job.steps[at - 1]!.id) : undefined}
        />
      ) : (
        <>
          <h1>{t`Everything is done. File the work?`}</h1>
          <p>{t`The service goes into the machine’s book today; its proof is the after-run.`}</p>
          <BookMinutes job={job} write={write} />
          <div className="bench-bar">
            <div>
              <Button onClick={() => setChosen(job.steps.at(-1)?.id ?? null)}>{t`Back`}</Button>
              <Button type="primary" onClick={() => void write({ kind: 'work-filed' })}>
                {t`File the work as done`}
              </Button>
            </div>
          </div>
        </>
      )}
      <ol className="bench-steps" aria-label={t`All steps`}>
        {job.steps.map((s) => (
          <li key={s.id}>
            <button
              type="button"
              aria-current={screen.includes(s) ? 'step' : undefined}
              onClick={() => setChosen(s.id)}
            >
              <span className={`bench-box ${s.doneAt ? 'done' : ''}`} aria-hidden="true">
                {s.doneAt ? '✓' : s.skipped ? '–' : ''}
              </span>
              <span className={isOpen(s) ? undefined : 'quiet'}>
                <span className="visually-hidden">
                  {s.doneAt ? t`Done: ` : s.skipped ? t`Left out: ` : ''}
                </span>
                {say(s.message)}
                {s.doneAt && <span className="small"> · {clock(s.doneAt)}</span>}
                {s.skipped && (
                  <span className="small">
                    {' '}
                    {t`· left out`}
                    {s.skippedBecause ? `: ${s.skippedBecause}` : ''}
                  </span>
                )}
              </span>
            </button>
          </li>
        ))}
      </ol>
      <div className="bench-more">
        <Button onClick={() => setDialog('add')}>{t`Add a step …`}</Button>
        {step && (
          <Button onClick={() => void write({ kind: 'step-repeated', step: step.id })}>
            {t`Do this step twice`}
          </Button>
        )}
        <Button onClick={() => setDialog('level')}>{t`It needs another level …`}</Button>
      </div>
      <p className="quiet small">
        {t`${done} of ${job.steps.length}. Local codes, the maker’s instructions and licensed practice come first.`}
      </p>
      {leaving && (
        <AskReason
          title={t`Leave this step out`}
          text={say(leaving.message)}
          busy={false}
          confirm={t`Leave out`}
          onClose={() => setLeaving(null)}
          onReason={(reason) =>
            write({ kind: 'step-skipped', step: leaving.id, reason }).then(() => setChosen(null))
          }
        />
      )}
      {dialog === 'level' && <ChangeLevel job={job} write={write} onClose={() => setDialog(null)} />}
      {dialog === 'add' && (
        <AddStep job={job} write={write} stage={step?.stage ?? 'close'} onClose={() => setDialog(null)} />
      )}
    </div>
  );
}

function ChangeLevel({ job, write, onClose }: BenchJob & { onClose: () => void }) {
  const [level, setLevel] = useState<ServiceLevel>(job.asked?.level ?? job.level);
  const [reason, setReason] = useState(job.asked?.because ?? '');
  const [warranty, setWarranty] = useState('');
  const guarded = job.warrantyUntil !== null && job.warrantyAnswer === null;
  const change = async () => {
    if (warranty.trim()) await write({ kind: 'warranty-answered', answer: warranty.trim() });
    await write({ kind: 'level-changed', level, reason: reason.trim() || null, fan: null });
    onClose();
  };
  return (
    <Modal title={t`Another level`} open onCancel={onClose} okText={t`Change`} onOk={() => void change()}>
      <p className="quiet">{t`The steps change with it; what is ticked stays ticked.`}</p>
      <Select
        aria-label={t`Level`}
        value={level}
        onChange={setLevel}
        className="full before-more"
        options={levelChoices(job.levels)}
      />
      <label>
        {t`Why`}
        <Input value={reason} maxLength={500} onChange={(e) => setReason(e.target.value)} />
      </label>
      {guarded && (
        <label className="block apart">
          {t`It is under warranty until ${fullDay(job.warrantyUntil!)}: the maker’s answer, or why it is opened all the same`}
          <Input value={warranty} maxLength={500} onChange={(e) => setWarranty(e.target.value)} />
        </label>
      )}
    </Modal>
  );
}

function AddStep({ write, stage, onClose }: BenchJob & { stage: Schemas['Stage']; onClose: () => void }) {
  const [where, setWhere] = useState(stage);
  const [what, setWhat] = useState('');
  return (
    <Modal
      title={t`Add a step`}
      open
      onCancel={onClose}
      okText={t`Add`}
      okButtonProps={{ disabled: what.trim() === '' }}
      onOk={() => void write({ kind: 'step-added', stage: where, do: what.trim() }).then(onClose)}
    >
      <Select
        aria-label={t`At the end of`}
        value={where}
        onChange={setWhere}
        className="full before-more"
        options={(
          [
            'prepare',
            'make-safe',
            'open',
            'inspect',
            'clean',
            'pads',
            'paste',
            'tighten',
            'reconnect',
            'test-before-closing',
            'close',
          ] as const
        ).map((s) => ({
          value: s,
          label: t`at the end of: ${STAGES[s]}`,
        }))}
      />
      <label>
        {t`What is to be done`}
        <Input value={what} maxLength={300} onChange={(e) => setWhat(e.target.value)} />
      </label>
    </Modal>
  );
}
