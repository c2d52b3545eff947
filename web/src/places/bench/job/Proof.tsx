import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Button, Input, Modal } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { fullDay, instant } from '../../../words/format';
import { partnersOf } from '../partners';
import { RunForm } from '../RunForm';
import type { BenchJob } from '../useBenchJob';
import { VerdictView } from '../VerdictView';
import { AskFields } from './AskFields';
import { GateCheck } from './GateCheck';
import { useStartJob } from '../../../ui/useStartJob';
import { levelName } from '../../../words/work';
import { NextMachine } from './NextMachine';
import { Refusal } from '../../../ui/Refusal';

/** From the work done to the proof filed: after-run, verdict, second look, handing back. */
export function Proof({ job, write }: BenchJob) {
  const after = job.runs.some((r) => r.phase === 'after' && r.voided === null);
  const [again, setAgain] = useState(false);
  return (
    <>
      {job.state === 'waiting-for-proof' && (!after || again) ? (
        <>
          <h1>{t`Waiting for proof: measure it again.`}</h1>
          <p className="quiet">
            {t`The same load, time, fan, settings and position as before, from the same cold start.`}
          </p>
          <RunForm job={job} write={write} phase="after" onKept={() => setAgain(false)} />
        </>
      ) : (
        <>
          {(job.verdict ?? job.preview) ? (
            <>
              <VerdictView verdict={(job.verdict ?? job.preview)!} />
              <WhatElse job={job} />
            </>
          ) : (
            <>
              <h1>{t`Nothing can be proven.`}</h1>
              <p>
                {t`There was no before-run (${job.beforeExcuse ?? ''}). The after-run stands as the machine’s new starting point.`}
              </p>
            </>
          )}
          {job.state === 'waiting-for-proof' && (
            <Decide job={job} write={write} onAgain={() => setAgain(true)} />
          )}
        </>
      )}
      {job.state === 'proven' && (
        <p className="quiet">
          {t`Filed`} {job.closedAt && instant(job.closedAt)}
          <Trans>
            . Its new baseline begins on the day of the work.{' '}
            <Link to={`/bench/${String(job.id)}/proof`}>The proof sheet for its owner</Link>
          </Trans>
        </p>
      )}
      {job.state === 'proven' && <NextMachine job={job} />}
      {(job.state === 'proven' || after) && <SecondLook job={job} write={write} />}
      <HandBack job={job} write={write} />
    </>
  );
}

/** What else lowers a temperature that is still too high, each as a job that can be started. */
function WhatElse({ job }: Pick<BenchJob, 'job'>) {
  const start = useStartJob();
  const remedies = (job.verdict ?? job.preview)?.remedyJobs.filter(
    (r) => r.level === null || job.levels.includes(r.level),
  );
  if (!remedies?.length) return null;
  return (
    <section className="section" aria-label={t`What else would help`}>
      <div className="section-head">
        <h2>{t`What else would help`}</h2>
      </div>
      <div className="bench-more">
        {remedies.map(({ remedy, level }) =>
          level === null ? (
            <Link key={remedy} to="/halls">
              <Button>{t`A cooler room: see its hall`}</Button>
            </Link>
          ) : (
            <Button
              key={remedy}
              loading={start.isPending && start.variables.level === level}
              onClick={() => start.mutate({ asset: job.asset, level, complaint: null })}
            >
              {t`Start a job: ${levelName(level)}`}
            </Button>
          ),
        )}
      </div>
      {start.isError && <Refusal error={start.error} />}
    </section>
  );
}

function Decide({ job, write, onAgain }: BenchJob & { onAgain: () => void }) {
  const [gone, setGone] = useState<boolean | null>(null);
  const [remount, setRemount] = useState(false);
  const lacking = partnersOf(job.runs, 'after').find((p) => !p.paired);
  return (
    <>
      {job.complaint && (
        <fieldset className="bench-gate">
          <legend>{t`Is the complaint gone?`}</legend>
          {job.complaintStands ? (
            <p>{job.complaintStands}</p>
          ) : (
            <GateCheck checked={gone === true} onChange={() => setGone(true)}>
              {t`Gone: it ran through`}
            </GateCheck>
          )}
          <GateCheck checked={gone === false} onChange={() => setGone(false)}>
            {t`Not gone, or not shown yet`}
          </GateCheck>
        </fieldset>
      )}
      <div className="bench-more">
        <Button onClick={onAgain}>
          {lacking ? t`Measure the next load: ${lacking.label}` : t`Measure again`}
        </Button>
        <Button onClick={() => setRemount(true)}>{t`Open it again …`}</Button>
      </div>
      {remount && <OpenAgain job={job} write={write} onClose={() => setRemount(false)} />}
      <div className="bench-bar">
        <div style={{ gridTemplateColumns: '1fr' }}>
          <Button
            type="primary"
            disabled={job.complaint !== null && gone === null}
            onClick={() => void write({ kind: 'verdict-filed', fixed: job.complaint ? gone : null })}
          >
            {t`File this verdict`}
          </Button>
        </div>
      </div>
    </>
  );
}

function OpenAgain({ write, onClose }: BenchJob & { onClose: () => void }) {
  const [alike, setAlike] = useState({ room: false, fan: false, settings: false });
  const [reason, setReason] = useState('');
  const box = (key: keyof typeof alike, text: string) => (
    <GateCheck checked={alike[key]} onChange={(checked) => setAlike({ ...alike, [key]: checked })}>
      {text}
    </GateCheck>
  );
  return (
    <Modal
      title={t`Before it is opened again`}
      open
      onCancel={onClose}
      okText={t`Open it again`}
      okButtonProps={{ disabled: !alike.room || !alike.fan || !alike.settings || reason.trim() === '' }}
      onOk={() =>
        void write({
          kind: 'reopened',
          roomAlike: alike.room,
          fanAlike: alike.fan,
          settingsAlike: alike.settings,
          reason: reason.trim(),
        }).then(onClose)
      }
    >
      <p>
        {t`Pasting three times because the air-con was off is the oldest mistake of the trade. Were these alike in both runs?`}
      </p>
      <fieldset className="bench-gate">
        <legend>{t`The same in both runs`}</legend>
        {box('room', t`The room: measured at the intake, not guessed`)}
        {box('fan', t`The fan: same mode, same speed, every lead plugged`)}
        {box('settings', t`The settings: same limits, same load`)}
      </fieldset>
      <AskFields>
        <label>
          {t`What is wrong`}
          <Input
            value={reason}
            maxLength={500}
            placeholder={t`the hot spot moved away from the core`}
            onChange={(e) => setReason(e.target.value)}
          />
        </label>
      </AskFields>
    </Modal>
  );
}

/** Paste beds in over days: a settled look about a week later, from readings or a run. */
function SecondLook({ job, write }: BenchJob) {
  const [measuring, setMeasuring] = useState(false);
  const [now] = useState(() => Date.now());
  const done = job.runs.find((r) => r.phase === 'recheck' && r.voided === null);
  if (!job.recheckDue && !done) return null;
  const due = job.recheckDue !== null && Date.parse(job.recheckDue) <= now;
  return (
    <section className="section" aria-label={t`Second look`}>
      <div className="section-head">
        <h2>{t`Second look`}</h2>
        {!done && job.recheckDue && (
          <span className="quiet small">
            {due ? t`due now` : t`due ${fullDay(job.recheckDue.slice(0, 10))}`}
          </span>
        )}
      </div>
      {done && job.recheckVerdict ? (
        <VerdictView verdict={job.recheckVerdict} small />
      ) : (
        <>
          <p className="quiet">
            {t`New paste beds in over days and gains a degree or so: look again a week after the work, from its readings or a run.`}
          </p>
          {measuring ? (
            <RunForm job={job} write={write} phase="recheck" onKept={() => setMeasuring(false)} />
          ) : (
            <Button onClick={() => setMeasuring(true)}>{t`Look now`}</Button>
          )}
        </>
      )}
    </section>
  );
}

function HandBack({ job, write }: BenchJob) {
  const [open, setOpen] = useState(false);
  const [to, setTo] = useState('');
  const [note, setNote] = useState('');
  const [condition, setCondition] = useState('');
  const others = job.schools.othersMachines === true;
  if (job.handedBack)
    return (
      <p className="apart">
        {t`Back with ${job.handedBack.to} since ${instant(job.handedBack.at)}.`}
        {job.handedBack.note && ` ${job.handedBack.note}`}
        {job.handedBack.condition && t` As it went back: ${job.handedBack.condition}.`}
      </p>
    );
  return (
    <>
      <Button className="apart" onClick={() => setOpen(true)}>
        {t`Hand it back to its owner …`}
      </Button>
      {open && (
        <Modal
          title={t`Hand it back`}
          open
          onCancel={() => setOpen(false)}
          okText={t`Handed back`}
          okButtonProps={{ disabled: to.trim() === '' }}
          onOk={() =>
            void write({
              kind: 'handed-back',
              to: to.trim(),
              note: note.trim() || null,
              condition: condition.trim() || null,
            }).then(() => setOpen(false))
          }
        >
          <AskFields>
            <label>
              {t`To whom`}
              <Input value={to} maxLength={200} onChange={(e) => setTo(e.target.value)} />
            </label>
            {others && (
              <label>
                {t`How it looks as it goes back`}
                <Input value={condition} maxLength={500} onChange={(e) => setCondition(e.target.value)} />
              </label>
            )}
            <label>
              {t`A word with it`}
              <Input.TextArea
                rows={2}
                value={note}
                maxLength={500}
                onChange={(e) => setNote(e.target.value)}
              />
            </label>
          </AskFields>
        </Modal>
      )}
    </>
  );
}
