import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Button } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../../api/client';
import { AskReason } from '../../../ui/AskReason';
import { kelvin, partName, useTemperature } from '../../../words/format';
import { repeatsOf } from '../partners';
import { RunForm } from '../RunForm';
import { RunView } from '../RunView';
import type { BenchJob } from '../useBenchJob';
import { PHASES } from '../../../words/work';

/** Another load, fan or setting, or the same once more: as long as nothing was done to the machine. */
const mayAddBefore = (job: BenchJob['job']) =>
  job.state === 'open' &&
  job.runs.some((r) => r.phase === 'before' && r.voided === null) &&
  !job.steps.some((s) => s.doneAt !== null && s.stage !== 'prepare' && s.stage !== 'make-safe');

/** All runs of the job; one that was struck out stays. */
export function Runs({ job, write }: BenchJob) {
  const [voiding, setVoiding] = useState<Schemas['JobRunAnswer'] | null>(null);
  const [adding, setAdding] = useState(false);
  const { exact } = useTemperature();
  if (job.runs.length === 0 && !job.beforeExcuse) return null;
  const mayVoid = (phase: Schemas['RunPhase']) =>
    job.state === 'open' ||
    job.state === 'waiting-for-proof' ||
    (job.state === 'proven' && phase === 'recheck');
  return (
    <section className="section" aria-label={t`Runs`}>
      <div className="section-head">
        <h2>{t`Runs`}</h2>
      </div>
      {job.beforeExcuse && !job.runs.some((r) => r.phase === 'before' && r.voided === null) && (
        <p>{t`No before-run: ${job.beforeExcuse}`}</p>
      )}
      {job.runs.map((r) => (
        <RunView
          key={r.key}
          title={r.voided === null ? PHASES[r.phase] : t`${PHASES[r.phase]}, struck out: ${r.voided}`}
          run={r.run}
          at={r.measuredAt}
          parts={r.voided === null ? job.parts.map((p) => p.part) : []}
          struck={r.voided !== null}
          onVoid={r.voided === null && mayVoid(r.phase) ? () => setVoiding(r) : undefined}
        />
      ))}
      {repeatsOf(job.runs).map((r) => (
        <p key={`${r.phase} ${r.label}`} className="small">
          <Trans>
            {PHASES[r.phase]}, {r.label}, {r.runs} times:{' '}
            {r.parts
              .map((p) => `${partName(p.part)} ${exact(p.celsius)} ± ${kelvin(p.spreadKelvin)}`)
              .join(', ')}{' '}
            <span className="quiet">(mean and standard deviation)</span>
          </Trans>
        </p>
      ))}
      {mayAddBefore(job) &&
        (adding ? (
          <RunForm job={job} write={write} phase="before" onKept={() => setAdding(false)} />
        ) : (
          <Button onClick={() => setAdding(true)}>{t`Another run before the work …`}</Button>
        ))}
      {voiding && (
        <AskReason
          title={t`Strike out the run: ${PHASES[voiding.phase].toLowerCase()}, ${voiding.run.workload}`}
          text={t`It stays here, struck through, and proves nothing.`}
          busy={false}
          confirm={t`Strike out`}
          onClose={() => setVoiding(null)}
          onReason={(reason) =>
            write({ kind: 'run-voided', phase: voiding.phase, reason, runKey: voiding.key })
          }
        />
      )}
    </section>
  );
}
