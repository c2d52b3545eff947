import { useQuery } from '@tanstack/react-query';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, unwrap, type Schemas } from '../api/client';
import { useMachine, useMachines, useWrite } from '../api/queries';
import { capital, count, instant, partName, takenWords, useTemperature } from '../lib/format';
import { Columns } from './Columns';
import { Refusal } from '../shell/Refusal';
import './intake.css';
import { RefusedLines } from './RefusedLines';
import type { Settled } from './takeTable';

type Answer = Schemas['SensorLogAnswer'];

const ROLES: Record<string, string> = {
  time: 'Day and time',
  date: 'Day',
  clockTime: 'Time of day',
  ambient: 'Air at the intake',
  power: 'Power',
  clock: 'Clock',
  load: 'Load, %',
  fanRpm: 'Fan, rpm',
  fanPercent: 'Fan, %',
  ignore: 'leave it out',
};

const MEANINGS: Record<string, string> = { 'day-month': 'day first', 'month-day': 'month first' };

/** The zones that this browser knows; the reader's own first. */
const ZONES = (() => {
  const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return [...new Set([own, 'UTC', ...Intl.supportedValuesOf('timeZone')])];
})();

const ZONE = 'pyrometron.logZone';

function take(text: Blob, asset: string, zone: string, map: Settled, means: Settled, dryRun: boolean) {
  return unwrap(
    api.POST('/api/v1/logs', {
      params: {
        query: {
          asset,
          timeZone: zone,
          dryRun,
          map: Object.entries(map).map(([header, field]) => `${header}:${field}`),
          means: Object.entries(means).map(([word, meaning]) => `${word}:${meaning}`),
        },
      },
      headers: { 'Content-Type': 'text/csv' },
      body: text as never,
      bodySerializer: (body: unknown) => body as never,
    }),
  );
}

/** A sensor log before it is taken: whose it is, what each column holds, what it comes to. */
export function LogTake({ name, text, onLeave }: { name: string; text: Blob; onLeave: () => void }) {
  const machines = useMachines();
  const tags = (machines.data ?? []).filter((m) => m.retiredOn === null).map((m) => m.tag);
  // A file is often named after its machine.
  const named = tags.filter((t) => name.toLowerCase().includes(t.toLowerCase()));
  const [chosen, setChosen] = useState<string | null>(null);
  const asset = chosen ?? (named.length === 1 ? named[0]! : tags.length === 1 ? tags[0]! : null);
  return (
    <section className="section" aria-label={`Log: ${name}`}>
      <div className="section-head">
        <h2>Sensor log: {name}</h2>
        <Button onClick={onLeave}>Close</Button>
      </div>
      {tags.length === 0 ? (
        <p>A log belongs to a machine, and there is none yet: bring in a list, or add one on Halls.</p>
      ) : (
        <label className="log-machine">
          The machine it was written on
          <Select
            aria-label="The machine it was written on"
            showSearch
            placeholder="its tag"
            value={asset}
            onChange={setChosen}
            style={{ minWidth: 220 }}
            options={tags.map((value) => ({ value }))}
          />
        </label>
      )}
      {asset && <Preview key={asset} name={name} text={text} asset={asset} />}
    </section>
  );
}

function Preview({ name, text, asset }: { name: string; text: Blob; asset: string }) {
  const [map, setMap] = useState<Settled>({});
  const [means, setMeans] = useState<Settled>({});
  const [zone, setZone] = useState(() => localStorage.getItem(ZONE) ?? ZONES[0]!);
  const machine = useMachine(asset);
  const preview = useQuery({
    queryKey: ['log-file', name, asset, zone, map, means],
    queryFn: () => take(text, asset, zone, map, means, true),
    retry: false,
    placeholderData: (before) => before,
  });
  const write = useWrite(() => take(text, asset, zone, map, means, false));
  const answer = write.data ?? preview.data;
  const fields: Record<string, string> = {
    ...Object.fromEntries(
      (machine.data?.parts ?? []).map((p) => [p.part ?? '', capital(partName(p.part ?? ''))]),
    ),
    ...ROLES,
  };
  return (
    <>
      <label className="log-machine">
        Its times were written in
        <Select
          aria-label="Time zone of the log"
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
      {preview.isPending && <p role="status">Reading the log …</p>}
      {answer && (
        <>
          <p role="status">
            {write.isSuccess ? takenWords(answer.accepted, answer.duplicates, 'reading') : foundWords(answer)}
          </p>
          {!write.isSuccess && (
            <>
              {answer.questions
                .filter((q) => q.about !== 'timeZone')
                .map((q) => (
                  <label key={q.about} className="log-machine">
                    {q.ask}
                    <Select
                      aria-label={q.ask}
                      placeholder="choose"
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
              <Link to={`/machines/${encodeURIComponent(asset)}`}>
                <Button type="primary">To {asset}</Button>
              </Link>
            ) : (
              <Button
                type="primary"
                size="large"
                loading={write.isPending}
                disabled={answer.windows === answer.idle}
                onClick={() => write.mutate(undefined)}
              >
                Take {count(answer.windows - answer.idle, 'reading')}
              </Button>
            )}
          </div>
        </>
      )}
    </>
  );
}

const foundWords = (a: Answer) =>
  `${count(a.samples, 'sample')}${a.from && a.to ? ` from ${instant(a.from)} to ${instant(a.to)}` : ''}: ` +
  `${count(a.windows - a.idle, 'steady half hour')} under load, ${a.idle.toLocaleString()} idle` +
  `${a.throttled > 0 ? `, ${a.throttled.toLocaleString()} throttled` : ''}` +
  `${a.gaps > 0 ? `, ${count(a.gaps, 'gap')}` : ''}.`;

function Windows({ answer }: { answer: Answer }) {
  const { exact } = useTemperature();
  if (answer.preview.length === 0) return null;
  return (
    <div className="scroll-x" style={{ marginTop: 14 }}>
      <table className="plain-table">
        <thead>
          <tr>
            <th>half hour about</th>
            <th>under load</th>
            <th>air</th>
            <th className="num">samples</th>
          </tr>
        </thead>
        <tbody>
          {answer.preview.map((w) => (
            <tr key={w.at}>
              <td>{instant(w.at)}</td>
              <td>
                {Object.entries(w.parts)
                  .filter(([, c]) => c !== null)
                  .map(([p, c]) => `${partName(p)} ${exact(c!)}`)
                  .join(', ')}
                {w.throttled && ', throttled'}
              </td>
              <td>{w.ambientCelsius === null ? 'not measured' : exact(w.ambientCelsius)}</td>
              <td className="num">{w.samples}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
