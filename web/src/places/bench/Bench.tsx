import { Button, Skeleton } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { Name } from './Name';
import { useComebacks, useJobs } from '../../api/queries';
import { fullDay, instant } from '../../words/format';
import { jobWords } from '../../words/work';
import { Refusal } from '../../ui/Refusal';
import { usePageTitle } from '../../ui/usePageTitle';
import '../../ui/work.css';
import { useOutbox } from '../../api/outbox';

type Job = Schemas['JobSummary'];

/** All jobs: in hand, waiting for proof, to be looked at again, and filed. */
export function Bench() {
  usePageTitle('Bench');
  const jobs = useJobs();
  const [now] = useState(() => Date.now());
  if (jobs.isPending)
    return (
      <div className="page" aria-busy="true">
        <h1>Bench</h1>
        <Skeleton active />
      </div>
    );
  if (jobs.isError)
    return (
      <div className="page">
        <h1>The jobs cannot be shown.</h1>
        <Refusal error={jobs.error} retry={() => void jobs.refetch()} />
      </div>
    );
  const of = (...states: Job['state'][]) => jobs.data.filter((j) => states.includes(j.state));
  const open = of('open');
  const waiting = of('waiting-for-proof');
  const again = of('proven').filter((j) => j.recheckDue !== null && j.recheckedAt === null);
  const due = again.filter((j) => Date.parse(j.recheckDue!) <= now);
  return (
    <div className="page" style={{ maxWidth: 820 }}>
      <h1>
        {open.length === 0
          ? 'Nothing in hand.'
          : open.length === 1
            ? 'One job in hand.'
            : `${String(open.length)} jobs in hand.`}
        {waiting.length > 0 &&
          ` ${waiting.length === 1 ? 'One waits' : `${String(waiting.length)} wait`} for proof.`}
      </h1>
      <Waiting />
      <div className="bench-more">
        <Link to="/scan">
          <Button>Scan a label</Button>
        </Link>
        <Link to="/labels">
          <Button>Print labels</Button>
        </Link>
        <Link to="/models">
          <Button>Notes on models</Button>
        </Link>
        <Name />
      </div>
      {jobs.data.length === 0 && (
        <>
          <p>A job starts from a machine: pick one on Rounds, measure it, do the work, measure it again.</p>
          <Link to="/">
            <Button type="primary">To Rounds</Button>
          </Link>
        </>
      )}
      <List title="In hand" jobs={open} />
      <List
        title="Waiting for proof"
        jobs={waiting}
        note="The work is done; the after-run that shows whether it helped is missing."
      />
      <List
        title="To be looked at again"
        jobs={due}
        note="New paste has had a week to settle: take a second look, from readings or a run."
      />
      <List title="Filed" jobs={of('proven', 'abandoned').filter((j) => !due.includes(j))} />
      <Agreement jobs={jobs.data} />
      <Comebacks />
    </div>
  );
}

/** What this device still has to send, whatever job it belongs to. */
function Waiting() {
  const { waiting, rejected } = useOutbox();
  if (waiting.length === 0 && rejected.length === 0) return null;
  const jobs = [...new Set([...waiting.map((w) => w.jobId), ...rejected.map((t) => t.waiting.jobId)])];
  return (
    <p className="bench-caution" role="status">
      {waiting.length > 0 && `${String(waiting.length)} not sent yet. `}
      {rejected.length > 0 && `${String(rejected.length)} to be decided. `}
      {jobs.map((id) => (
        <Link key={id} to={`/bench/${String(id)}`}>
          Job {id}{' '}
        </Link>
      ))}
    </p>
  );
}

function List({ title, jobs, note }: { title: string; jobs: readonly Job[]; note?: string }) {
  if (jobs.length === 0) return null;
  return (
    <section className="section" aria-label={title}>
      <div className="section-head">
        <h2>{title}</h2>
        <span className="quiet">{jobs.length}</span>
      </div>
      {note && <p className="quiet">{note}</p>}
      <ul style={{ listStyle: 'none', margin: 0, padding: 0 }}>
        {jobs.map((j) => (
          <li key={j.id} style={{ borderBottom: '1px solid var(--line)' }}>
            <Link to={`/bench/${String(j.id)}`} className="bench-row">
              <strong className="figures">{j.asset}</strong>
              <span>{j.level}</span>
              <span>{jobWords(j)}</span>
              <span className="quiet small">
                {j.state === 'proven' &&
                  j.recheckDue &&
                  j.recheckedAt === null &&
                  `second look ${fullDay(j.recheckDue.slice(0, 10))} · `}
                {instant(j.closedAt ?? j.workDoneAt ?? j.startedAt)}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** From which work machines come back, by model. */
function Comebacks() {
  const rates = useComebacks().data?.filter((r) => r.cameBack > 0) ?? [];
  if (rates.length === 0) return null;
  return (
    <section className="section" aria-label="Comebacks">
      <div className="section-head">
        <h2>Comebacks</h2>
      </div>
      <ul style={{ paddingLeft: 18, margin: 0 }}>
        {rates.map((r) => (
          <li key={r.level + r.model}>
            {r.model}, {r.level}: {r.cameBack} of {r.jobs} came back.
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Predicted against found: what the judgement said, and what was there on opening. */
function Agreement({ jobs }: { jobs: readonly Job[] }) {
  const known = jobs.filter((j) => j.predicted !== null && j.found !== null && j.workDoneAt !== null);
  if (known.length === 0) return null;
  const right = known.filter((j) => j.found!.includes(j.predicted!)).length;
  const wrong = known.filter((j) => !j.found!.includes(j.predicted!));
  return (
    <section className="section" aria-label="Predicted and found">
      <div className="section-head">
        <h2>Predicted and found</h2>
        <span className="quiet">
          {right} of {known.length} as predicted
        </span>
      </div>
      {wrong.length === 0 ? (
        <p className="quiet">On opening, everything was as the judgement said.</p>
      ) : (
        <ul style={{ paddingLeft: 18, margin: 0 }}>
          {wrong.map((j) => (
            <li key={j.id}>
              <Link to={`/bench/${String(j.id)}`}>{j.asset}</Link>: {j.predicted} was predicted, found was{' '}
              {j.found!.map((c) => (c === 'none' ? 'nothing wrong' : c)).join(' and ')}.
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
