import { Button, Skeleton } from 'antd';
import { Link } from 'react-router';
import type { Schemas } from '../api/client';
import { useJobs } from '../api/queries';
import { instant } from '../lib/format';
import { jobWords } from '../machine/Book';
import { Refusal } from '../shell/Refusal';
import { usePageTitle } from '../shell/usePageTitle';

type Job = Schemas['JobSummary'];

/** All jobs: in hand, waiting for proof, and filed. */
export function Bench() {
  usePageTitle('Bench');
  const jobs = useJobs();
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
        note="Done, and nobody knows yet whether it helped: the after-run is missing."
      />
      <List title="Filed" jobs={of('proven', 'abandoned')} />
    </div>
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
            <Link
              to={`/bench/${String(j.id)}`}
              style={{
                display: 'grid',
                gridTemplateColumns: '100px 90px 1fr auto',
                gap: 12,
                padding: '12px 0',
                textDecoration: 'none',
              }}
            >
              <strong className="figures">{j.asset}</strong>
              <span>{j.level}</span>
              <span>{jobWords(j)}</span>
              <span className="quiet small">{instant(j.closedAt ?? j.workDoneAt ?? j.startedAt)}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
