import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { useHealth } from '../../api/queries';
import { capital, partName, useTemperature } from '../../words/format';
import { duration, useNow } from './job/Timers';
import { Curves } from './RunLog';
import type { BenchJob } from './useBenchJob';
import { TemperatureField } from '../../ui/TemperatureField';
import { say } from '../../words/message';

const POLL = 3000;

/** The test's timer with the live curve: samples come from a device, or are typed in as it runs. */
export function LiveRun({
  job,
  write,
  phase,
  minutes,
  onTake,
}: BenchJob & {
  phase: string;
  minutes: number;
  onTake: (log: Schemas['RunLogAnswer'], minutes: number) => void;
}) {
  const name = `${phase}-run`;
  const timer = job.timers.find((t) => t.timer === name);
  const running = timer !== undefined && !timer.stopped;
  const now = useNow(running);
  const demo = useHealth().data?.data === 'demo';
  const from = timer?.startedAt;
  const live = useQuery({
    queryKey: ['live', job.id, from],
    queryFn: () =>
      unwrap(
        api.GET('/api/v1/jobs/{id}/live', { params: { path: { id: job.id }, query: from ? { from } : {} } }),
      ),
    enabled: from !== undefined,
    refetchInterval: running ? POLL : false,
  });
  const start = () =>
    write({ kind: 'timer-started', timer: name, seconds: Math.max(1, Math.round(minutes * 60)) });
  const probe = async () => {
    await start();
    await unwrap(
      api.POST('/api/v1/jobs/{id}/probe', { params: { path: { id: job.id } }, body: { speed: 60 } }),
    );
  };
  const stop = async () => {
    await write({ kind: 'timer-stopped', timer: name });
    await fetch(`/api/v1/jobs/${String(job.id)}/probe`, { method: 'DELETE' }).catch(() => undefined);
    if (live.data?.run) onTake(live.data.run, live.data.run.minutes);
  };
  if (!timer)
    return (
      <div className="bench-more">
        <Button onClick={() => void start()}>{t`Start the test: ${duration(minutes * 60_000)}`}</Button>
        {demo && <Button onClick={() => void probe()}>{t`Try it with the simulated probe`}</Button>}
      </div>
    );
  const elapsed = (timer.stopped ? 0 : now - Date.parse(timer.startedAt)) / 1000;
  const short = running && elapsed < timer.seconds && (live.data?.run?.minutes ?? 0) < minutes;
  return (
    <section className="run-live" aria-label={t`The test`}>
      <p role="status">
        {running ? (
          <>
            <Trans>
              Under load for <strong className="figures">{duration(elapsed * 1000)}</strong> of{' '}
              {duration(timer.seconds * 1000)}.{' '}
            </Trans>
          </>
        ) : (
          t`Stopped. `
        )}
        {live.data && live.data.samples > 0 && <strong>{say(live.data.message)}</strong>}
      </p>
      {live.data?.run && <Curves log={live.data.run} />}
      {running && <Sample job={job} onSent={() => void live.refetch()} />}
      <div className="bench-more">
        {running ? (
          <Button onClick={() => void stop()}>
            {live.data?.rising
              ? t`Stop although it still rises`
              : short
                ? t`Stop before its time`
                : t`Stop the test`}
          </Button>
        ) : (
          <>
            <Button onClick={() => void start()}>{t`Start again`}</Button>
            {live.data?.run && (
              <Button onClick={() => onTake(live.data.run!, live.data.run!.minutes)}>
                {t`Take these figures`}
              </Button>
            )}
          </>
        )}
      </div>
    </section>
  );
}

/** A value read off a display while the test runs: six of them make a curve. */
function Sample({ job, onSent }: { job: Schemas['JobAnswer']; onSent: () => void }) {
  const { unit } = useTemperature();
  const [values, setValues] = useState<Record<string, number | null>>({});
  const parts = Object.entries(values).filter((v): v is [string, number] => typeof v[1] === 'number');
  const send = async () => {
    await unwrap(
      api.POST('/api/v1/jobs/{id}/samples', {
        params: { path: { id: job.id } },
        body: {
          samples: [
            {
              at: new Date().toISOString(),
              parts: Object.fromEntries(parts),
              ambientCelsius: null,
              powerWatts: null,
              clockMhz: null,
              fanRpm: null,
              fanPercent: null,
            },
          ],
        },
      }),
    );
    setValues({});
    onSent();
  };
  return (
    <div className="run-sample">
      {job.parts.map((p) => (
        <label key={p.part}>
          {t`${capital(partName(p.part))} now, °${unit}`}
          <TemperatureField
            min={-40}
            max={400}
            value={values[p.part] ?? null}
            onChange={(v) => setValues({ ...values, [p.part]: v })}
          />
        </label>
      ))}
      <Button disabled={parts.length === 0} onClick={() => void send()}>
        {t`Note it`}
      </Button>
    </div>
  );
}
