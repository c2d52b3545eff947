import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Button } from 'antd';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { useGrades } from '../../api/queries';
import { clock, instant } from '../../words/format';
import { AskReason } from '../../ui/AskReason';
import { holdJob } from '../../ui/InHand';
import { usePageTitle } from '../../ui/usePageTitle';
import '../../ui/work.css';

import { Complaint } from './job/Complaint';
import { Cost } from './job/Cost';
import { FromStores, NotThere } from './job/FromStores';
import { Note } from './job/Note';
import { AgreeOrder, Order } from './job/Order';
import { Photos } from './job/Photos';
import { Proof } from './job/Proof';
import { Runs } from './job/Runs';
import { Timers } from './job/Timers';
import { Used } from './job/Used';
import { Work } from './job/Work';
import { MeasureBefore } from './job/MeasureBefore';
import { Name } from './Name';
import { OutboxNotice } from './OutboxNotice';
import { useBenchJob, type BenchJob } from './useBenchJob';
import { levelName } from '../../words/work';
import { word } from '../../words/word';
import { Unready } from '../../ui/Unready';

/** The job in hand: measure, work step by step, measure again, and the verdict. */
export function Job() {
  const id = Number(useParams()['id']);
  const { query, job, write } = useBenchJob(id);
  usePageTitle(job ? `${job.asset} · ${levelName(job.level)}` : t`Bench`);
  if (!job) return <Unready of={[query]} as="bench" missing={t`job ${String(id)}`} />;
  return <JobPage key={job.id} job={job} write={write} />;
}

function JobPage({ job, write }: BenchJob) {
  // Fetched with the job: at the step that needs them there may be no network.
  useGrades();
  useEffect(
    () => holdJob({ id: job.id, title: `${job.asset} · ${levelName(job.level)}` }, job.state === 'open'),
    [job.id, job.asset, job.level, job.state],
  );
  const [giveUp, setGiveUp] = useState(false);
  const [asked, setAsked] = useState(() => job.state === 'open' && !localStorage.getItem('pyrometron.name'));
  return (
    <div className="bench">
      <div className="bench-head">
        <span className="figures lead heavy">
          <Link to={`/machines/${encodeURIComponent(job.asset)}`} className="unmarked">
            {job.asset}
          </Link>{' '}
          · {levelName(job.level)}
        </span>
        <span className="quiet small">
          {job.state === 'open' ? t`since ${clock(job.startedAt)}` : word(job.state)} ·{' '}
          <Link to={`/bench/${String(job.id)}/paper`}>{t`paper`}</Link> ·{' '}
          <Link to={`/log?asset=${encodeURIComponent(job.asset)}`}>{t`log`}</Link>
        </span>
      </div>
      {asked && (
        <p className="bench-caution">
          <Name onNamed={(name) => setAsked(name === '')} />{' '}
          {t`It is asked once on this device, and written beside what is done here.`}
        </p>
      )}
      <OutboxNotice jobId={job.id} />
      {job.comebackOf !== null && (
        <p className="bench-caution" role="status">
          <Trans>
            It is back: <Link to={`/bench/${String(job.comebackOf)}`}>job {job.comebackOf}</Link> was filed
            not long ago.
          </Trans>
          {job.freeOfCharge && t` This job is free of charge.`}
        </p>
      )}
      {job.notesChanged && (
        <p className="bench-caution" role="status">
          {t`The notes on ${job.model} have changed since this card was made.`}{' '}
          <Button onClick={() => void write({ kind: 'notes-taken' })}>{t`Take the new notes over`}</Button>
        </p>
      )}
      <Timers job={job} write={write} />
      {job.state === 'open' && <NotThere job={job} />}
      {job.state === 'open' &&
        (job.unagreed ? (
          <>
            <h1>{t`Write down what was agreed.`}</h1>
            <p className="quiet">{job.unagreed}</p>
            <AgreeOrder job={job} write={write} />
          </>
        ) : job.blockedBefore ? (
          <MeasureBefore job={job} write={write} />
        ) : (
          <Work job={job} write={write} />
        ))}
      {(job.state === 'waiting-for-proof' || job.state === 'proven') && <Proof job={job} write={write} />}
      {job.state === 'abandoned' && (
        <>
          <h1>{t`Given up.`}</h1>
          <p>{job.givenUpBecause}</p>
          <p className="quiet">{job.closedAt && instant(job.closedAt)}</p>
        </>
      )}
      {job.state === 'open' && <FromStores job={job} />}
      {!job.unagreed && <Order job={job} write={write} />}
      <Complaint job={job} write={write} />
      <Runs job={job} write={write} />
      {(job.state === 'waiting-for-proof' || job.state === 'proven') && <Cost job={job} />}
      {job.state !== 'abandoned' && (
        <>
          <Photos job={job} write={write} />
          <Used job={job} write={write} />
          <Note job={job} write={write} />
        </>
      )}
      {job.state === 'open' && (
        <Button type="text" className="apart" onClick={() => setGiveUp(true)}>
          {t`Give this job up …`}
        </Button>
      )}
      {giveUp && (
        <AskReason
          title={t`Give this job up`}
          text={t`Nothing was done to the machine: no service is entered in its book.`}
          busy={false}
          confirm={t`Give up`}
          onClose={() => setGiveUp(false)}
          onReason={(reason) => write({ kind: 'given-up', reason })}
        />
      )}
    </div>
  );
}
