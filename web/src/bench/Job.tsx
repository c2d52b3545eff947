import { App, Button, Input, Modal, Select, Skeleton } from 'antd';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ProblemError, unwrap, type Schemas, type ServiceLevel } from '../api/client';
import { useJob, useMachine, useJobWrite } from '../api/queries';
import { clock, instant } from '../lib/format';
import { AskReason } from '../machine/AskReason';
import { NotFound } from '../shell/NotFound';
import { Refusal } from '../shell/Refusal';
import { usePageTitle } from '../shell/usePageTitle';
import './bench.css';
import { RunForm } from './RunForm';
import { RunView } from './RunView';
import { VerdictView } from './VerdictView';

type JobAnswer = Schemas['JobAnswer'];

const LEVELS: readonly ServiceLevel[] = ['inspect', 'blow-out', 'dust-out', 'fan-swap', 'repaste', 'repad'];

/** The job in hand: measure, work step by step, measure again, and the verdict. */
export function Job() {
  const id = Number(useParams()['id']);
  const job = useJob(id);
  usePageTitle(job.data ? `${job.data.asset} · ${job.data.level}` : 'Bench');
  if (job.isPending)
    return (
      <div className="bench" aria-busy="true">
        <Skeleton active />
      </div>
    );
  if (job.isError)
    return job.error instanceof ProblemError && job.error.problem.status === 404 ? (
      <NotFound what={`job ${String(id)}`} />
    ) : (
      <div className="bench">
        <Refusal error={job.error} retry={() => void job.refetch()} />
      </div>
    );
  return <JobPage key={job.data.id} job={job.data} reload={() => void job.refetch()} />;
}

function JobPage({ job, reload }: { job: JobAnswer; reload: () => void }) {
  const [giveUp, setGiveUp] = useState(false);
  const abandon = useJobWrite((reason: string) =>
    unwrap(
      api.POST('/api/v1/jobs/{id}/abandon', {
        params: { path: { id: job.id } },
        body: { version: job.version, reason },
      }),
    ),
  );
  return (
    <div className="bench">
      <div className="bench-head">
        <span className="figures" style={{ fontSize: 17, fontWeight: 700 }}>
          <Link to={`/machines/${encodeURIComponent(job.asset)}`} style={{ textDecoration: 'none' }}>
            {job.asset}
          </Link>{' '}
          · {job.level}
        </span>
        <span className="quiet small">
          {job.state === 'open' ? `since ${clock(job.startedAt)}` : job.state.replaceAll('-', ' ')} · job{' '}
          {job.id}
        </span>
      </div>
      {job.state === 'open' && !job.before && !job.noBeforeReason && (
        <MeasureBefore job={job} reload={reload} />
      )}
      {job.state === 'open' && (job.before || job.noBeforeReason) && <Work job={job} reload={reload} />}
      {job.state === 'waiting-for-proof' && <MeasureAfter job={job} reload={reload} />}
      {job.state === 'proven' && <Proven job={job} />}
      {job.state === 'abandoned' && (
        <>
          <h1>Given up.</h1>
          <p>{job.note}</p>
        </>
      )}
      <Runs job={job} />
      {job.state !== 'abandoned' && <Note job={job} />}
      {job.state === 'open' && (
        <Button type="text" style={{ marginTop: 20 }} onClick={() => setGiveUp(true)}>
          Give this job up …
        </Button>
      )}
      {giveUp && (
        <AskReason
          title="Give this job up"
          text="Nothing was done to the machine: no service is entered in its book."
          busy={abandon.isPending}
          onClose={() => setGiveUp(false)}
          onReason={(reason) => abandon.mutateAsync(reason)}
        />
      )}
    </div>
  );
}

function MeasureBefore({ job, reload }: { job: JobAnswer; reload: () => void }) {
  const [without, setWithout] = useState(false);
  const skip = useJobWrite((reason: string) =>
    unwrap(
      api.PATCH('/api/v1/jobs/{id}', {
        params: { path: { id: job.id } },
        body: { noBeforeReason: reason, note: null, level: null, version: job.version },
      }),
    ),
  );
  return (
    <>
      <h1>Measure before you open it.</h1>
      <p className="quiet">
        A known load for a known time, the fan fixed if it can be, and the air written down: no before-run, no
        proof.
      </p>
      <RunForm job={job} phase="before" reload={reload} />
      <Button type="text" onClick={() => setWithout(true)}>
        It cannot be measured …
      </Button>
      {without && (
        <AskReason
          title="Open it without a before-run"
          text="Then nothing can be proven afterwards. Write down why."
          busy={skip.isPending}
          onClose={() => setWithout(false)}
          onReason={(reason) => skip.mutateAsync(reason)}
        />
      )}
    </>
  );
}

function Work({ job, reload }: { job: JobAnswer; reload: () => void }) {
  const { message } = App.useApp();
  const [changing, setChanging] = useState(false);
  const tick = useJobWrite(async (input: { step: string; done: boolean }) => {
    try {
      return await unwrap(
        api.POST('/api/v1/jobs/{id}/steps/{step}', {
          params: { path: { id: job.id, step: input.step } },
          body: { done: input.done, version: job.version },
        }),
      );
    } catch (error) {
      message.warning(error instanceof Error ? error.message : String(error), 6);
      reload();
      throw error;
    }
  });
  const finish = useJobWrite(() =>
    unwrap(
      api.POST('/api/v1/jobs/{id}/finish', {
        params: { path: { id: job.id } },
        body: { version: job.version, reason: null },
      }),
    ),
  );
  const next = job.steps.findIndex((s) => !s.doneAt);
  const step = next < 0 ? null : job.steps[next]!;
  const done = job.steps.filter((s) => s.doneAt).length;
  return (
    <>
      <div className="bench-ticks" aria-hidden="true">
        {job.steps.map((s, i) => (
          <span key={s.id} className={s.doneAt ? 'done' : i === next ? 'current' : ''} />
        ))}
      </div>
      <p className="quiet" role="status">
        {step
          ? `Step ${String(next + 1)} of ${String(job.steps.length)} · ${stageWords(step.stage)}`
          : `All ${String(job.steps.length)} steps done`}
      </p>
      <h1>{step ? step.do : 'Everything is done. File the work?'}</h1>
      {step?.caution && <p className="bench-caution">{step.caution}</p>}
      {step && next === 0 && (
        <p className="quiet small">
          Local codes, the maker&rsquo;s instructions and licensed practice come first.
        </p>
      )}
      {!step && <p>The service goes into the machine&rsquo;s book today; its proof is the after-run.</p>}
      {finish.isError && <Refusal error={finish.error} />}
      <ol className="bench-steps" aria-label="All steps">
        {job.steps.map((s) => (
          <li key={s.id}>
            <button
              type="button"
              role="checkbox"
              aria-checked={s.doneAt !== null}
              disabled={tick.isPending}
              onClick={() => tick.mutate({ step: s.id, done: !s.doneAt })}
            >
              <span className={`bench-box ${s.doneAt ? 'done' : ''}`}>{s.doneAt ? '✓' : ''}</span>
              <span className={s.doneAt ? 'quiet' : undefined}>
                {s.do}
                {s.doneAt && <span className="small"> · {clock(s.doneAt)}</span>}
              </span>
            </button>
          </li>
        ))}
      </ol>
      <Button type="text" onClick={() => setChanging(true)}>
        It needs another level …
      </Button>
      {changing && <ChangeLevel job={job} onClose={() => setChanging(false)} />}
      <div className="bench-bar">
        <div>
          <Button
            disabled={done === 0 || tick.isPending}
            onClick={() => {
              const last = job.steps.filter((s) => s.doneAt).at(-1);
              if (last) tick.mutate({ step: last.id, done: false });
            }}
          >
            Back
          </Button>
          {step ? (
            <Button
              type="primary"
              onClick={() => {
                // A tick is on disk within milliseconds; a second tap until then is the same tap.
                if (!tick.isPending) tick.mutate({ step: step.id, done: true });
              }}
            >
              Done
            </Button>
          ) : (
            <Button type="primary" loading={finish.isPending} onClick={() => finish.mutate(undefined)}>
              File the work as done
            </Button>
          )}
        </div>
      </div>
    </>
  );
}

function ChangeLevel({ job, onClose }: { job: JobAnswer; onClose: () => void }) {
  const [level, setLevel] = useState<ServiceLevel>(job.level);
  const write = useJobWrite(() =>
    unwrap(
      api.PATCH('/api/v1/jobs/{id}', {
        params: { path: { id: job.id } },
        body: { level, version: job.version, note: null, noBeforeReason: null },
      }),
    ),
  );
  return (
    <Modal
      title="Another level"
      open
      onCancel={onClose}
      okText="Change"
      confirmLoading={write.isPending}
      onOk={() => void write.mutateAsync(undefined).then(onClose, () => undefined)}
    >
      {write.isError && <Refusal error={write.error} />}
      <p className="quiet">The steps change with it; what is ticked stays ticked.</p>
      <Select
        aria-label="Level"
        value={level}
        onChange={setLevel}
        style={{ width: '100%' }}
        options={LEVELS.map((l) => ({ value: l, label: l }))}
      />
    </Modal>
  );
}

function MeasureAfter({ job, reload }: { job: JobAnswer; reload: () => void }) {
  const prove = useJobWrite(() =>
    unwrap(
      api.POST('/api/v1/jobs/{id}/prove', {
        params: { path: { id: job.id } },
        body: { version: job.version, reason: null },
      }),
    ),
  );
  const [again, setAgain] = useState(false);
  if (job.after && !again)
    return (
      <>
        {job.preview ? (
          <VerdictView verdict={job.preview} />
        ) : (
          <>
            <h1>Nothing can be proven.</h1>
            <p>
              There was no before-run ({job.noBeforeReason}). The after-run stands as the machine&rsquo;s new
              starting point.
            </p>
          </>
        )}
        {prove.isError && <Refusal error={prove.error} />}
        <div className="bench-bar">
          <div>
            <Button onClick={() => setAgain(true)}>Measure again</Button>
            <Button type="primary" loading={prove.isPending} onClick={() => prove.mutate(undefined)}>
              File this verdict
            </Button>
          </div>
        </div>
      </>
    );
  return (
    <>
      <h1>Waiting for proof: measure it again.</h1>
      <p className="quiet">
        The same load, time, fan, settings and position as before, from the same cold start. Paste beds in
        over days: a week later is a good second look.
      </p>
      <RunForm
        job={job}
        phase="after"
        reload={() => {
          setAgain(false);
          reload();
        }}
      />
    </>
  );
}

function Proven({ job }: { job: JobAnswer }) {
  return (
    <>
      {job.verdict && <VerdictView verdict={job.verdict} />}
      <p className="quiet">
        Filed {job.closedAt && instant(job.closedAt)}. Its new baseline begins on the day of the work.
      </p>
      <Link to="/">
        <Button type="primary">Back to Rounds</Button>
      </Link>
    </>
  );
}

function Runs({ job }: { job: JobAnswer }) {
  const [voiding, setVoiding] = useState<{ id: number; phase: string } | null>(null);
  const closed = job.state === 'proven' || job.state === 'abandoned';
  const write = useJobWrite((input: { run: number; reason: string }) =>
    unwrap(
      api.POST('/api/v1/jobs/{id}/runs/{run}/void', {
        params: { path: { id: job.id, run: input.run } },
        body: { version: job.version, reason: input.reason },
      }),
    ),
  );
  const machine = useMachine(job.asset);
  if (!job.before && !job.after && job.voidedRuns.length === 0 && !job.noBeforeReason) return null;
  const row = (phase: string, id: number | null, run: Schemas['RunDto'] | null, at: string | null) =>
    run &&
    id !== null && (
      <RunView
        title={phase === 'before' ? 'Before' : 'After'}
        run={run}
        at={at}
        parts={machine.data?.parts.map((p) => p.part ?? '') ?? []}
        onVoid={closed ? undefined : () => setVoiding({ id, phase })}
      />
    );
  return (
    <section className="section" aria-label="Runs">
      <div className="section-head">
        <h2>Runs</h2>
      </div>
      {row('before', job.beforeId, job.before, job.beforeAt)}
      {!job.before && job.noBeforeReason && <p>No before-run: {job.noBeforeReason}</p>}
      {row('after', job.afterId, job.after, job.afterAt)}
      {job.voidedRuns.map((r) => (
        <RunView
          key={r.id}
          title={`${r.phase === 'before' ? 'Before' : 'After'}, voided: ${r.reason}`}
          run={r.run}
          at={r.measuredAt}
          parts={[]}
          struck
        />
      ))}
      {voiding && (
        <AskReason
          title={`Void the ${voiding.phase}-run`}
          text="It stays here, struck through, and proves nothing."
          busy={write.isPending}
          onClose={() => setVoiding(null)}
          onReason={(reason) => write.mutateAsync({ run: voiding.id, reason })}
        />
      )}
    </section>
  );
}

function Note({ job }: { job: JobAnswer }) {
  const [note, setNote] = useState(job.note ?? '');
  const write = useJobWrite(() =>
    unwrap(
      api.PATCH('/api/v1/jobs/{id}', {
        params: { path: { id: job.id } },
        body: { note, version: job.version, level: null, noBeforeReason: null },
      }),
    ),
  );
  return (
    <section className="section" aria-label="Note">
      <div className="section-head">
        <h2>Note</h2>
        <span className="quiet small" role="status">
          {write.isPending
            ? 'saving …'
            : write.isError
              ? 'not saved'
              : note === (job.note ?? '')
                ? 'saved'
                : 'saved when you leave the field'}
        </span>
      </div>
      {write.isError && <Refusal error={write.error} retry={() => write.mutate(undefined)} />}
      <Input.TextArea
        aria-label="Note"
        rows={3}
        maxLength={2000}
        value={note}
        placeholder="What you saw: paste dry at the edges, a torn pad, a loud fan"
        onChange={(e) => setNote(e.target.value)}
        onBlur={() => {
          if (note !== (job.note ?? '')) write.mutate(undefined);
        }}
      />
    </section>
  );
}

function stageWords(stage: Schemas['Stage']): string {
  const words: Record<Schemas['Stage'], string> = {
    'measure-before': 'Measure before',
    'make-safe': 'Make safe',
    open: 'Open',
    inspect: 'Look',
    clean: 'Clean',
    joint: 'Joint',
    close: 'Close',
    'measure-after': 'Measure after',
  };
  return words[stage];
}
