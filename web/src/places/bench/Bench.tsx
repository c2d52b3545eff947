import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { Name } from './Name';
import { useComebacks, useJobs } from '../../api/queries';
import { fullDay, instant, listed } from '../../words/format';
import { jobWords, levelName } from '../../words/work';
import { usePageTitle } from '../../ui/usePageTitle';
import '../../ui/work.css';
import { useOutbox } from '../../api/outbox';
import { word } from '../../words/word';
import { Unready } from '../../ui/Unready';

type Job = Schemas['JobSummary'];

/** All jobs: in hand, waiting for proof, to be looked at again, and filed. */
export function Bench() {
  usePageTitle(t`Bench`);
  const jobs = useJobs();
  const [now] = useState(() => Date.now());
  if (!jobs.data) return <Unready of={[jobs]} title={t`Bench`} failed={t`The jobs cannot be shown.`} />;
  const of = (...states: Job['state'][]) => jobs.data.filter((j) => states.includes(j.state));
  const open = of('open');
  const waiting = of('waiting-for-proof');
  const again = of('proven').filter((j) => j.recheckDue !== null && j.recheckedAt === null);
  const due = again.filter((j) => Date.parse(j.recheckDue!) <= now);
  return (
    <div className="page text-width">
      <h1>
        {plural(open.length, { 0: 'Nothing in hand.', one: 'One job in hand.', other: '# jobs in hand.' })}
        {waiting.length > 0 &&
          ` ${plural(waiting.length, { one: 'One waits for proof.', other: '# wait for proof.' })}`}
      </h1>
      <Waiting />
      <div className="bench-more">
        <Link to="/scan">
          <Button>{t`Scan a label`}</Button>
        </Link>
        <Link to="/labels">
          <Button>{t`Print labels`}</Button>
        </Link>
        <Link to="/models">
          <Button>{t`Notes on models`}</Button>
        </Link>
        <Name />
      </div>
      {jobs.data.length === 0 && (
        <>
          <p>
            {t`A job starts from a machine: pick one on Rounds, measure it, do the work, measure it again.`}
          </p>
          <Link to="/">
            <Button type="primary">{t`To Rounds`}</Button>
          </Link>
        </>
      )}
      <List title={t`In hand`} jobs={open} />
      <List
        title={t`Waiting for proof`}
        jobs={waiting}
        note={t`The work is done; the after-run that shows whether it helped is missing.`}
      />
      <List
        title={t`To be looked at again`}
        jobs={due}
        note={t`New paste has had a week to settle: take a second look, from readings or a run.`}
      />
      <List title={t`Filed`} jobs={of('proven', 'abandoned').filter((j) => !due.includes(j))} />
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
      {waiting.length > 0 && t`${String(waiting.length)} not sent yet. `}
      {rejected.length > 0 && t`${String(rejected.length)} to be decided. `}
      {jobs.map((id) => (
        <Link key={id} to={`/bench/${String(id)}`}>
          {t`Job ${id}`}{' '}
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
      <ul className="bare-list">
        {jobs.map((j) => (
          <li key={j.id} className="ruled">
            <Link to={`/bench/${String(j.id)}`} className="bench-row">
              <strong className="figures">{j.asset}</strong>
              <span>{levelName(j.level)}</span>
              <span>{jobWords(j)}</span>
              <span className="quiet small">
                {j.state === 'proven' &&
                  j.recheckDue &&
                  j.recheckedAt === null &&
                  t`second look ${fullDay(j.recheckDue.slice(0, 10))} · `}
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
    <section className="section" aria-label={t`Comebacks`}>
      <div className="section-head">
        <h2>{t`Comebacks`}</h2>
      </div>
      <ul className="bullets">
        {rates.map((r) => (
          <li key={r.level + r.model}>{t`${r.model}, ${r.level}: ${r.cameBack} of ${r.jobs} came back.`}</li>
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
    <section className="section" aria-label={t`Predicted and found`}>
      <div className="section-head">
        <h2>{t`Predicted and found`}</h2>
        <span className="quiet">{t`${right} of ${known.length} as predicted`}</span>
      </div>
      {wrong.length === 0 ? (
        <p className="quiet">{t`On opening, everything was as the judgement said.`}</p>
      ) : (
        <ul className="bullets">
          {wrong.map((j) => (
            <li key={j.id}>
              <Trans>
                <Link to={`/bench/${String(j.id)}`}>{j.asset}</Link>: {word(j.predicted!)} was predicted,
                found was {listed(j.found!.map((c) => (c === 'none' ? t`nothing wrong` : word(c))))}.
              </Trans>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
