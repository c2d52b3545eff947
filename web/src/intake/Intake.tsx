import { Button, Progress as Bar, Upload } from 'antd';
import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { ProblemError } from '../api/client';
import { useHealth } from '../api/queries';
import { count, takenWords } from '../lib/format';
import { Refusal } from '../shell/Refusal';
import { usePageTitle } from '../shell/usePageTitle';
import '../bench/bench.css';
import { Imports } from './Imports';
import { LogTake } from './LogTake';
import { Paste } from './Paste';
import { RefusedLines } from './RefusedLines';
import { TableTake } from './TableTake';
import { kindOf, refusedCsv, send, type FileKind, type ImportAnswer, type Progress } from './upload';

interface Entry {
  id: number;
  file: File;
  kind: FileKind | null;
  state: 'waiting' | 'working' | 'done' | 'failed';
  progress: Progress;
  answer?: ImportAnswer;
  error?: Error | undefined;
}

const ORDER: readonly (FileKind | null)[] = ['fleet', 'services', 'readings', null];

/** What is sent as it is; lists and logs are looked at first. */
const isPlain = (kind: FileKind | null) => kind !== 'table' && kind !== 'log';

/** Where files come in: the fleet document, readings, services; plain or gzip. */
export function Intake() {
  usePageTitle('Intake');
  const [entries, setEntries] = useState<Entry[]>([]);
  const health = useHealth();
  const client = useQueryClient();
  const counter = useRef(0);
  const queue = useRef<Promise<void>>(Promise.resolve());
  const abort = useRef(new AbortController());

  const [tables, setTables] = useState<{ id: number; name: string; text: Blob | string }[]>([]);
  const [logs, setLogs] = useState<{ id: number; file: File }[]>([]);
  const [pasting, setPasting] = useState(false);
  const addTable = (name: string, text: Blob | string) =>
    setTables((all) => [{ id: ++counter.current, name, text }, ...all]);

  const change = (id: number, part: Partial<Entry>) =>
    setEntries((all) => all.map((e) => (e.id === id ? { ...e, ...part } : e)));

  const take = async (files: File[]) => {
    const found = await Promise.all(
      files.map(async (file) => ({
        id: ++counter.current,
        file,
        kind: await kindOf(file),
        state: 'waiting' as const,
        progress: { sent: 0, worked: 0, lines: 0 },
      })),
    );
    // Machines first, then what was done to them, then what was measured: in whatever order they were dropped.
    found.sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind));
    setEntries((all) => [...found.filter((e) => isPlain(e.kind)).toReversed(), ...all]);
    for (const { file } of found.filter((e) => e.kind === 'table')) addTable(file.name, file);
    for (const { file } of found.filter((e) => e.kind === 'log'))
      setLogs((all) => [{ id: ++counter.current, file }, ...all]);
    for (const entry of found.filter((e) => isPlain(e.kind)))
      queue.current = queue.current.then(() => work(entry));
  };

  const work = async (entry: Entry, form?: Record<string, string>) => {
    if (entry.kind === null) {
      change(entry.id, {
        state: 'failed',
        error: new Error(
          'This is neither a fleet document (JSON) nor a readings file (a header with time and asset) nor a services file (date, asset, level).',
        ),
      });
      return;
    }
    abort.current = new AbortController();
    change(entry.id, { state: 'working', error: undefined });
    try {
      const answer = await send(
        entry.file,
        entry.kind,
        (progress) => change(entry.id, { progress }),
        abort.current.signal,
        form,
      );
      change(entry.id, { state: 'done', answer });
    } catch (error) {
      change(entry.id, { state: 'failed', error: error instanceof Error ? error : new Error(String(error)) });
    }
    await client.invalidateQueries();
  };

  return (
    <div className="page" style={{ maxWidth: 820 }}>
      <h1>Bring in machines, readings and services.</h1>
      <p className="quiet">
        Drop the files here together or one after the other; sending one twice changes nothing. Times carry
        their offset, temperatures are in °C, an empty cell was not measured.
      </p>
      {health.data?.data === 'demo' && (
        <p className="demo-note" style={{ marginBottom: 14 }}>
          This is the demo&rsquo;s database. For your own machines start the program with <code>--empty</code>
          ; they then lie apart from it.
        </p>
      )}
      <Upload.Dragger
        multiple
        showUploadList={false}
        accept=".json,.csv,.tsv,.txt,.gz"
        beforeUpload={(file, all) => {
          if (file === all[0]) void take(all as File[]);
          return false;
        }}
      >
        <p style={{ fontSize: 17, fontWeight: 650, margin: '18px 0 4px' }}>
          Drop files here, or press to choose
        </p>
        <p className="quiet" style={{ marginBottom: 18 }}>
          a list of machines · sensor logs · fleet.json · readings.csv · services.csv
        </p>
      </Upload.Dragger>
      <div className="bench-more">
        <Button onClick={() => setPasting(true)}>Paste a table …</Button>
        <a href="/api/v1/fleet/table/template" download>
          <Button>Template</Button>
        </a>
        <a href="/api/v1/fleet/table" download>
          <Button>The fleet as a table</Button>
        </a>
      </div>
      {pasting && (
        <Paste
          onPasted={(text) => {
            setPasting(false);
            addTable('pasted', text);
          }}
          onLeave={() => setPasting(false)}
        />
      )}
      {logs.map((l) => (
        <LogTake
          key={l.id}
          name={l.file.name}
          text={l.file}
          onLeave={() => setLogs((all) => all.filter((o) => o.id !== l.id))}
        />
      ))}
      {tables.map((t) => (
        <TableTake
          key={t.id}
          name={t.name}
          text={t.text}
          onLeave={() => setTables((all) => all.filter((o) => o.id !== t.id))}
        />
      ))}
      {entries.map((entry) => (
        <Report
          key={entry.id}
          entry={entry}
          onStop={() => abort.current.abort()}
          onForm={(form) => (queue.current = queue.current.then(() => work(entry, form)))}
        />
      ))}
      <Imports />
      {entries.length === 0 && (
        <section className="section">
          <div className="section-head">
            <h2>What goes in</h2>
          </div>
          <dl
            className="intake-forms"
            style={{ display: 'grid', gridTemplateColumns: '110px 1fr', gap: '10px 16px', margin: 0 }}
          >
            <dt>Machines</dt>
            <dd style={{ margin: 0, minWidth: 0, overflowWrap: 'anywhere' }}>
              A table with a row of headers in any language. Needed: a tag, and a kind or a model. Read
              besides: site, zone, dust, warmest air, altitude, hours a day, in service since, warranty until,
              host, last service and its level, limit.{' '}
              <span className="quiet">What it would change is shown before anything is stored.</span>
            </dd>
            <dt>Sensor logs</dt>
            <dd style={{ margin: 0, minWidth: 0, overflowWrap: 'anywhere' }}>
              What a monitoring program on a machine writes: one column a sensor, seconds apart. Steady half
              hours under load become readings.
            </dd>
            <dt>Fleet document</dt>
            <dd style={{ margin: 0, minWidth: 0, overflowWrap: 'anywhere' }}>
              JSON: sites with zones, and the machines in them with their parts, limits and services.{' '}
              <span className="quiet">All of it or nothing is taken.</span>
            </dd>
            <dt>Readings</dt>
            <dd style={{ margin: 0, minWidth: 0, overflowWrap: 'anywhere' }}>
              <code>time,asset</code> must be there; and what was measured, in any order:{' '}
              <code>
                ambient_c, outlet_c, power_w, fan_rpm, fan_pct, fan1_rpm, clock_mhz, throttled, score,
                settings, workload
              </code>{' '}
              and a column for each part such as <code>cpu_c</code>, <code>core_c</code>,{' '}
              <code>memory_c</code>. <span className="quiet">Good lines are kept, bad ones are listed.</span>
            </dd>
            <dt>Services</dt>
            <dd style={{ margin: 0, minWidth: 0, overflowWrap: 'anywhere' }}>
              <code>date,asset,level</code>; a level is inspect, blow-out, dust-out, repaste, repad or
              fan-swap.
            </dd>
          </dl>
        </section>
      )}
      {entries.length > 0 && entries.every((e) => e.state === 'done' || e.state === 'failed') && (
        <p style={{ marginTop: 20 }}>
          <Link to="/">
            <Button type="primary">To Rounds</Button>
          </Link>
        </p>
      )}
    </div>
  );
}

function Report({
  entry,
  onStop,
  onForm,
}: {
  entry: Entry;
  onStop: () => void;
  onForm: (form: Record<string, string>) => void;
}) {
  const { progress, answer } = entry;
  const share = entry.kind === 'readings' ? progress.sent * 0.3 + progress.worked * 0.7 : progress.sent;
  return (
    <section className="section" aria-label={entry.file.name}>
      <div className="section-head">
        <h2>
          {entry.file.name}{' '}
          <span className="quiet" style={{ fontWeight: 400 }}>
            {entry.kind ?? 'not known'} ·{' '}
            {(entry.file.size / 1024 / 1024).toLocaleString(undefined, { maximumFractionDigits: 1 })} MB
          </span>
        </h2>
        {entry.state === 'working' && <Button onClick={onStop}>Stop</Button>}
      </div>
      {entry.state === 'waiting' && <p className="quiet">waits for the one before it</p>}
      {entry.state === 'working' && (
        <div role="status">
          <Bar
            percent={Math.round(share * 100)}
            strokeColor="var(--ink)"
            status="active"
            aria-label="Progress"
          />
          <span className="quiet">
            {progress.sent < 1
              ? 'sending'
              : progress.lines > 0
                ? `${count(progress.lines, 'line')} done`
                : 'checking'}
          </span>
        </div>
      )}
      {entry.error && <Refusal error={entry.error} />}
      {entry.error instanceof ProblemError &&
        entry.error.problem.questions?.map((q) => (
          <p key={q.about} className="bench-more">
            {q.ask}{' '}
            {q.choices.map((choice) => (
              <Button key={choice} type="primary" onClick={() => onForm({ [q.about]: choice })}>
                Read it so
              </Button>
            ))}
          </p>
        ))}
      {answer && <Answer answer={answer} name={entry.file.name} />}
    </section>
  );
}

function Answer({ answer, name }: { answer: ImportAnswer; name: string }) {
  const warnings = answer.warnings;
  const refused = 'rejected' in answer ? answer.rejected : [];
  const url = () => URL.createObjectURL(new Blob([refusedCsv(refused)], { type: 'text/csv' }));
  return (
    <div role="status">
      {'created' in answer ? (
        <p>
          <strong>{count(answer.created, 'machine')} new</strong>, {answer.updated} changed,{' '}
          {answer.unchanged} as they were.
        </p>
      ) : (
        <p>
          <strong>{takenWords(answer.accepted, answer.duplicates, 'line')}</strong>
          {answer.rejectedCount > 0 && ` ${count(answer.rejectedCount, 'line')} refused.`}
        </p>
      )}
      {warnings.length > 0 && (
        <ul className="quiet" style={{ paddingLeft: 18 }}>
          {warnings.slice(0, 12).map((w) => (
            <li key={w}>{w}</li>
          ))}
          {warnings.length > 12 && <li>and {warnings.length - 12} more</li>}
        </ul>
      )}
      {refused.length > 0 && (
        <>
          <RefusedLines refused={refused} />
          <p style={{ marginTop: 8 }}>
            <Button
              onClick={() => {
                const link = document.createElement('a');
                link.href = url();
                link.download = `${name.replace(/(\.csv)?(\.gz)?$/, '')}-refused.csv`;
                link.click();
                setTimeout(() => URL.revokeObjectURL(link.href), 1000);
              }}
            >
              Download the refused lines ({refused.length.toLocaleString()})
            </Button>
          </p>
        </>
      )}
    </div>
  );
}
