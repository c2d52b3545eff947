import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Button, Upload } from 'antd';
import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { useHealth } from '../../api/queries';
import { usePageTitle } from '../../ui/usePageTitle';
import '../../ui/work.css';
import { Imports } from './Imports';
import { LogTake } from './LogTake';
import { Paste } from './Paste';
import { Report, type Entry } from './Report';
import { TableTake } from './TableTake';
import { kindOf, send, type FileKind } from './upload';
import { WhatGoesIn } from './WhatGoesIn';

const ORDER: readonly (FileKind | null)[] = ['fleet', 'services', 'readings', null];

/** What is sent as it is; lists and logs are looked at first. */
const isPlain = (kind: FileKind | null) => kind !== 'table' && kind !== 'log';

/** Where files come in: the fleet document, readings, services; plain or gzip. */
export function Intake() {
  usePageTitle(t`Intake`);
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
          t`This is neither a fleet document (JSON) nor a readings file (a header with time and asset) nor a services file (date, asset, level).`,
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
        { onProgress: (progress) => change(entry.id, { progress }), signal: abort.current.signal },
        form,
      );
      change(entry.id, { state: 'done', answer });
    } catch (error) {
      change(entry.id, { state: 'failed', error: error instanceof Error ? error : new Error(String(error)) });
    }
    await client.invalidateQueries();
  };

  return (
    <div className="page text-width">
      <h1>{t`Bring in machines, readings and services.`}</h1>
      <p className="quiet">
        {t`Drop the files here together or one after the other; sending one twice changes nothing. Times carry their offset, temperatures are in °C, an empty cell was not measured.`}
      </p>
      {health.data?.data === 'demo' && (
        <p className="demo-note before-more">
          <Trans>
            This is the demo&rsquo;s database. For your own machines start the program with{' '}
            <code>--empty</code>; they are kept apart from it.
          </Trans>
        </p>
      )}
      <Upload.Dragger
        multiple
        showUploadList={false}
        accept=".json,.csv,.tsv,.txt,.gz"
        beforeUpload={(file, all) => {
          if (file === all[0]) void take(all);
          return false;
        }}
      >
        <p className="lead heavy apart">{t`Drop files here, or press to choose`}</p>
        <p className="quiet before-more">
          {t`a list of machines · sensor logs · fleet.json · readings.csv · services.csv`}
        </p>
      </Upload.Dragger>
      <div className="bench-more">
        <Button onClick={() => setPasting(true)}>{t`Paste a table …`}</Button>
        <a href="/api/v1/fleet/table/template" download>
          <Button>{t`Template`}</Button>
        </a>
        <a href="/api/v1/fleet/table" download>
          <Button>{t`The fleet as a table`}</Button>
        </a>
        <Link to="/start">
          <Button type="text">{t`First steps`}</Button>
        </Link>
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
          onForm={(form) => {
            queue.current = queue.current.then(() => work(entry, form));
          }}
        />
      ))}
      <Imports />
      {entries.length === 0 && <WhatGoesIn />}
      {entries.length > 0 && entries.every((e) => e.state === 'done' || e.state === 'failed') && (
        <p className="apart">
          <Link to="/">
            <Button type="primary">{t`To Rounds`}</Button>
          </Link>
        </p>
      )}
    </div>
  );
}
