import { plural, t } from '@lingui/core/macro';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Select } from 'antd';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { useMachine, useMachines, useWrite } from '../../api/queries';
import { say } from '../../words/message';
import { capital, instant, partName, takenWords, useTemperature } from '../../words/format';
import { Columns } from './Columns';
import { Refusal } from '../../ui/Refusal';
import './intake.css';
import { RefusedLines } from './RefusedLines';
import type { Settled } from '../../api/takeTable';
import { upload, type Sending } from './upload';
import { Working } from './Working';
import { PlainTable } from '../../ui/PlainTable';

type Answer = Schemas['SensorLogAnswer'];

const ROLES: Record<string, string> = {
  asset: t`Tag of the machine`,
  time: t`Day and time`,
  date: t`Day`,
  clockTime: t`Time of day`,
  ambient: t`Air at the intake`,
  power: t`Power`,
  clock: t`Clock`,
  load: t`Load, %`,
  fanRpm: t`Fan, rpm`,
  fanPercent: t`Fan, %`,
  ignore: t`leave it out`,
};

const MEANINGS: Record<string, string> = { 'day-month': t`day first`, 'month-day': t`month first` };

/** The zones that this browser knows; the reader's own first. */
const ZONES = (() => {
  const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return [...new Set([own, 'UTC', ...Intl.supportedValuesOf('timeZone')])];
})();

const ZONE = 'pyrometron.logZone';

const NOT_BEGUN = { sent: 0, worked: 0, lines: 0 };

/** Parts that a column of a log of several machines may be of. */
const USUAL_PARTS = ['cpu', 'gpu', 'core', 'hotspot', 'memory', 'vrm'];

interface Order {
  asset: string | null;
  zone: string;
  map: Settled;
  means: Settled;
}

function take(text: Blob, { asset, zone, map, means }: Order, dryRun: boolean, how: Sending) {
  const query = new URLSearchParams({ timeZone: zone, dryRun: String(dryRun) });
  if (asset !== null) query.set('asset', asset);
  for (const [header, field] of Object.entries(map)) query.append('map', `${header}:${field}`);
  for (const [word, meaning] of Object.entries(means)) query.append('means', `${word}:${meaning}`);
  return upload<Answer>(`/api/v1/logs?${query.toString()}`, text, 'text/csv', how);
}

/** A sensor log before it is taken: whose it is, what each column holds, what it comes to. */
export function LogTake({ name, text, onLeave }: { name: string; text: Blob; onLeave: () => void }) {
  const machines = useMachines();
  const tags = (machines.data ?? []).filter((m) => m.retiredOn === null).map((m) => m.tag);
  // A file is often named after its machine.
  const named = tags.filter((t) => name.toLowerCase().includes(t.toLowerCase()));
  const [chosen, setChosen] = useState<string | null>();
  const guess = named.length === 1 ? named[0]! : tags.length === 1 ? tags[0]! : null;
  const asset = chosen === undefined ? guess : chosen;
  return (
    <section className="section" aria-label={t`Log: ${name}`}>
      <div className="section-head">
        <h2>{t`Sensor log: ${name}`}</h2>
        <Button onClick={onLeave}>{t`Close`}</Button>
      </div>
      {machines.isSuccess && tags.length === 0 ? (
        <p>{t`A log belongs to a machine, and there is none yet: bring in a list, or add one on Halls.`}</p>
      ) : (
        <label className="log-machine">
          {t`The machine it was written on`}
          <Select
            aria-label={t`The machine it was written on`}
            showSearch
            allowClear
            placeholder={t`as the log says`}
            value={asset}
            onChange={(tag: string | undefined) => setChosen(tag ?? null)}
            style={{ minWidth: 220 }}
            options={tags.map((value) => ({ value }))}
          />
        </label>
      )}
      {tags.length > 0 && <Preview key={asset} name={name} text={text} asset={asset} />}
    </section>
  );
}

function Preview({ name, text, asset }: { name: string; text: Blob; asset: string | null }) {
  const [map, setMap] = useState<Settled>({});
  const [means, setMeans] = useState<Settled>({});
  const [zone, setZone] = useState(() => localStorage.getItem(ZONE) ?? ZONES[0]!);
  const [progress, setProgress] = useState(NOT_BEGUN);
  const stop = useRef(new AbortController());
  const client = useQueryClient();
  const machine = useMachine(asset);
  const order = { asset, zone, map, means };
  const key = ['log-file', name, order];
  const write = useWrite(() => {
    stop.current = new AbortController();
    setProgress(NOT_BEGUN);
    return take(text, order, false, { onProgress: setProgress, signal: stop.current.signal });
  });
  const preview = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => take(text, order, true, { onProgress: setProgress, signal }),
    retry: false,
    placeholderData: (before) => before,
    // What is stored is not read once more, as every write would have it.
    enabled: !write.isSuccess,
  });
  const answer = write.data ?? preview.data;
  const fields: Record<string, string> = {
    ...Object.fromEntries(
      (machine.data?.parts.map((p) => p.part) ?? USUAL_PARTS).map((p) => [p, capital(partName(p))]),
    ),
    ...ROLES,
  };
  return (
    <>
      <label className="log-machine">
        {t`Its times were written in`}
        <Select
          aria-label={t`Time zone of the log`}
          showSearch
          value={zone}
          onChange={(z) => {
            localStorage.setItem(ZONE, z);
            setZone(z);
          }}
          style={{ minWidth: 220 }}
          options={ZONES.map((value) => ({ value }))}
        />
      </label>
      {preview.isError && <Refusal error={preview.error} />}
      {write.isError && <Refusal error={write.error} />}
      {preview.isFetching && (
        <Working progress={progress} onStop={() => void client.cancelQueries({ queryKey: key })} />
      )}
      {preview.isPending && preview.fetchStatus === 'idle' && (
        <p role="status">
          {t`Stopped; nothing was stored.`}{' '}
          <Button onClick={() => void preview.refetch()}>{t`Read it again`}</Button>
        </p>
      )}
      {write.isPending && <Working progress={progress} onStop={() => stop.current.abort()} />}
      {answer && (
        <>
          <p role="status">
            {write.isSuccess ? takenWords(answer.accepted, answer.duplicates, 'reading') : foundWords(answer)}
          </p>
          <OfMachines machines={answer.machines} />
          {!write.isSuccess && (
            <>
              {answer.questions
                .filter((q) => q.about !== 'timeZone')
                .map((q) => (
                  <label key={q.about} className="log-machine">
                    {say(q.says)}
                    <Select
                      aria-label={say(q.says)}
                      placeholder={t`choose`}
                      style={{ minWidth: 180 }}
                      onChange={(choice: string) =>
                        choice in MEANINGS
                          ? setMeans({ ...means, [q.about]: choice })
                          : setMap({ ...map, [q.about]: choice })
                      }
                      options={q.choices.map((c) => ({ value: c, label: fields[c] ?? MEANINGS[c] ?? c }))}
                    />
                  </label>
                ))}
              <Columns
                columns={answer.columns.map((c, i) => ({
                  ...c,
                  sample: answer.firstLines
                    .slice(0, 2)
                    .map((l) => l[i] ?? '')
                    .join(' · '),
                }))}
                fields={fields}
                onSettle={(h, f) => setMap({ ...map, [h]: f })}
              />
              <Windows answer={answer} />
            </>
          )}
          <RefusedLines refused={answer.rejected} total={answer.rejectedCount} />
          <div className="bench-more">
            {write.isSuccess ? (
              <Link to={asset === null ? '/' : `/machines/${encodeURIComponent(asset)}`}>
                <Button type="primary">{t`To ${asset ?? t`Rounds`}`}</Button>
              </Link>
            ) : (
              <Button
                type="primary"
                size="large"
                loading={write.isPending}
                disabled={answer.windows === answer.idle || preview.isFetching}
                onClick={() => write.mutate(undefined)}
              >
                {t`Import ${plural(answer.windows - answer.idle, { one: '# reading', other: '# readings' })}`}
              </Button>
            )}
          </div>
        </>
      )}
    </>
  );
}

/** What a log of several machines comes to for each. */
function OfMachines({ machines }: { machines: Answer['machines'] }) {
  if (machines.length < 2) return null;
  return (
    <div className="scroll-x">
      <PlainTable
        head={
          <>
            <th>{t`machine`}</th>
            <th className="num">{t`samples`}</th>
            <th className="num">{t`half hours under load`}</th>
            <th className="num">{t`idle`}</th>
            <th className="num">{t`throttled`}</th>
            <th className="num">{t`gaps`}</th>
          </>
        }
      >
        {machines.map((m) => (
          <tr key={m.asset}>
            <td className="figures">{m.asset}</td>
            <td className="num">{m.samples.toLocaleString()}</td>
            <td className="num">{m.windows - m.idle}</td>
            <td className="num">{m.idle}</td>
            <td className="num">{m.throttled}</td>
            <td className="num">{m.gaps}</td>
          </tr>
        ))}
      </PlainTable>
    </div>
  );
}

const foundWords = (a: Answer) =>
  `${plural(a.samples, { one: '# sample', other: '# samples' })}${a.from && a.to ? t` from ${instant(a.from)} to ${instant(a.to)}` : ''}: ` +
  t`${plural(a.windows - a.idle, { one: '# steady half hour', other: '# steady half hours' })} under load, ${a.idle.toLocaleString()} idle` +
  (a.throttled > 0 ? t`, ${a.throttled.toLocaleString()} throttled` : '') +
  `${a.gaps > 0 ? `, ${plural(a.gaps, { one: '# gap', other: '# gaps' })}` : ''}.`;

function Windows({ answer }: { answer: Answer }) {
  const { exact } = useTemperature();
  if (answer.preview.length === 0) return null;
  return (
    <div className="scroll-x apart">
      <PlainTable
        head={
          <>
            {answer.machines.length > 1 && <th>{t`machine`}</th>}
            <th>{t`half hour about`}</th>
            <th>{t`under load`}</th>
            <th>{t`air`}</th>
            <th className="num">{t`samples`}</th>
          </>
        }
      >
        {answer.preview.map((w) => (
          <tr key={`${w.asset} ${w.at}`}>
            {answer.machines.length > 1 && <td className="figures">{w.asset}</td>}
            <td>{instant(w.at)}</td>
            <td>
              {Object.entries(w.parts)
                .filter(([, c]) => c !== null)
                .map(([p, c]) => `${partName(p)} ${exact(c!)}`)
                .join(', ')}
              {w.throttled && t`, throttled`}
            </td>
            <td>{w.ambientCelsius === null ? t`not measured` : exact(w.ambientCelsius)}</td>
            <td className="num">{w.samples}</td>
          </tr>
        ))}
      </PlainTable>
    </div>
  );
}
