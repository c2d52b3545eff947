import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Button } from 'antd';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { usePageTitle } from '../../../ui/usePageTitle';
import { Counting } from '../job/Counting';
import { GateCheck } from '../job/GateCheck';
import { Inspection } from '../job/Inspection';
import { Note } from '../job/Note';
import { Used } from '../job/Used';
import { OutboxNotice } from '../OutboxNotice';
import { RunForm } from '../RunForm';
import { useBenchJob } from '../useBenchJob';
import '../../../ui/work.css';
import { gateWords, say } from '../../../words/message';
import { Unready } from '../../../ui/Unready';

/** What was written on the paper card, typed in afterwards on one page: figures, counts, grades, ticks, materials. */
export function Typed() {
  const id = Number(useParams()['id']);
  const { query, job, write } = useBenchJob(id);
  const navigate = useNavigate();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [busy, setBusy] = useState(false);
  usePageTitle(t`Typed in from paper`);
  if (!job) return <Unready of={[query]} missing={t`job ${String(id)}`} />;
  const open = job.steps.filter((s) => s.doneAt === null && !s.skipped);
  const toggle = (step: string) => {
    const next = new Set(ticked);
    if (!next.delete(step)) next.add(step);
    setTicked(next);
  };
  const keep = async () => {
    setBusy(true);
    for (const step of open.filter((s) => ticked.has(s.id))) {
      // The paper says that the time was waited for: its timer began that long ago.
      if (step.timer?.required)
        await write(
          { kind: 'timer-started', timer: step.id, seconds: step.timer.seconds },
          { secondsAgo: step.timer.seconds },
        );
      await write({ kind: 'step-done', step: step.id, checks: [...step.gate] });
    }
    setBusy(false);
    setTicked(new Set());
  };
  const before = job.runs.some((r) => r.phase === 'before' && r.voided === null);
  return (
    <div className="bench page-end">
      <h1>{t`${job.asset}: typed in from its paper card.`}</h1>
      <p className="quiet">
        <Trans>
          In the order of the card; each part is kept as you go.{' '}
          <Link to={`/bench/${String(id)}`}>To the job</Link>
        </Trans>
      </p>
      <OutboxNotice jobId={job.id} />
      {!before && !job.beforeExcuse && <RunForm job={job} write={write} phase="before" />}
      {job.state === 'open' && (
        <>
          <h2>{t`What was seen`}</h2>
          <Inspection job={job} write={write} form="inspection" />
          {(['joint-inspection', 'seal-inspection', 'corrosion-inspection'] as const)
            .filter((form) => job.steps.some((s) => s.form === form))
            .map((form) => (
              <Inspection key={form} job={job} write={write} form={form} />
            ))}
          {job.steps.some((s) => s.form === 'screws-out') && (
            <>
              <h2>{t`Screws out, and back in`}</h2>
              <Counting job={job} write={write} what="screws" going="out" />
              <Counting job={job} write={write} what="screws" going="in" />
              <h2>{t`Connectors off, and back on`}</h2>
              <Counting job={job} write={write} what="connectors" going="out" />
              <Counting job={job} write={write} what="connectors" going="in" />
            </>
          )}
          <h2>{t`Steps ticked on the card`}</h2>
          <div className="bench-gate" role="group" aria-label={t`Steps ticked on the card`}>
            {open.map((s) => (
              <GateCheck key={s.id} checked={ticked.has(s.id)} onChange={() => toggle(s.id)}>
                {say(s.message)}
                {s.gate.length > 0 && (
                  <span className="quiet small"> ({s.gate.map((_, i) => gateWords(s, i)).join('; ')})</span>
                )}
              </GateCheck>
            ))}
          </div>
          <div className="bench-more">
            <Button onClick={() => setTicked(new Set(open.map((s) => s.id)))}>{t`All of them`}</Button>
            <Button type="primary" loading={busy} disabled={ticked.size === 0} onClick={() => void keep()}>
              {t`Keep ${ticked.size} steps`}
            </Button>
            {job.blocked === null && (
              <Button
                type="primary"
                onClick={() =>
                  void write({ kind: 'work-filed' }).then(() => navigate(`/bench/${String(id)}`))
                }
              >
                {t`File the work as done`}
              </Button>
            )}
          </div>
        </>
      )}
      {job.state === 'waiting-for-proof' &&
        !job.runs.some((r) => r.phase === 'after' && r.voided === null) && (
          <RunForm job={job} write={write} phase="after" />
        )}
      <Used job={job} write={write} />
      <Note job={job} write={write} />
    </div>
  );
}
