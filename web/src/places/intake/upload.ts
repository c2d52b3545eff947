import { t } from '@lingui/core/macro';
import { csv } from '../../words/csv';
import { say } from '../../words/message';
import { ProblemError, type Problem, type Schemas } from '../../api/client';

export type FileKind = 'fleet' | 'readings' | 'services' | 'table' | 'log';

/** How far an upload is: bytes sent, then lines dealt with by the server. */
export interface Progress {
  sent: number;
  worked: number;
  lines: number;
}

export type ImportAnswer = Schemas['ImportAnswer'] | Schemas['FleetAnswer'];

const POLL = 400;

/** What a file is, told by its name and its first bytes; null when it cannot be told. */
export async function kindOf(file: File): Promise<FileKind | null> {
  const head = new Uint8Array(await file.slice(0, 2).arrayBuffer());
  if (head[0] === 0x1f && head[1] === 0x8b)
    return kindOfText(await firstText(file.stream().pipeThrough(new DecompressionStream('gzip'))));
  return kindOfText(await firstText(file.stream()));
}

async function firstText(stream: ReadableStream<Uint8Array<ArrayBuffer>>): Promise<string> {
  const reader = stream.getReader();
  try {
    const { value } = await reader.read();
    return new TextDecoder().decode(value?.slice(0, 4096));
  } catch {
    return '';
  } finally {
    void reader.cancel().catch(() => undefined);
  }
}

export function kindOfText(text: string): FileKind | null {
  const start = text.replace(/^\uFEFF/, '').trimStart();
  if (start.startsWith('{')) return 'fleet';
  const header = (start.split(/\r?\n/)[0] ?? '').split(/[,;\t]/).map((c) => c.replaceAll('"', '').trim());
  if (header.includes('level') && header.includes('date')) return 'services';
  if (header.includes('time') && header.includes('asset')) return 'readings';
  const lines = start.split(/\r?\n/);
  if (!/[,;\t|]/.test(lines.slice(0, 3).join('\n'))) return null;
  return isLog(lines) ? 'log' : 'table';
}

/** A log has a time of day in most of its first lines, and hardly a word in any of its cells; a list of machines has words. */
function isLog(lines: readonly string[]): boolean {
  const some = lines.slice(1, 20).filter((l) => l.trim() !== '');
  const timed = some.filter(
    (l) => /(^|[^\d])\d{1,2}:\d{2}(:\d{2})?/.test(l) || /(^|[,;\t])1\d{9,12}([,;\t]|$)/.test(l),
  );
  return some.length > 0 && timed.length >= some.length / 2;
}

/** How something is sent: told how far it is, and given up by a signal; what was stored until then stays. */
export interface Sending {
  onProgress: (p: Progress) => void;
  signal: AbortSignal;
}

/** Sends a file of a kind. @param form What was answered to questions about how the file is written. */
export const send = (file: File, kind: FileKind, how: Sending, form: Record<string, string> = {}) =>
  upload<ImportAnswer>(
    `/api/v1/${kind}?${new URLSearchParams({ listed: '100000', ...form }).toString()}`,
    file,
    kind === 'fleet' ? 'application/json' : 'text/csv',
    how,
  );

/** Sends a body with progress: of the sending, then of the server's work. */
export function upload<T>(
  path: string,
  body: Blob | string,
  type: string,
  { onProgress, signal }: Sending,
): Promise<T> {
  const id = crypto.randomUUID();
  let sent = 0;
  let worked = 0;
  let lines = 0;
  const report = () => onProgress({ sent, worked, lines });
  return new Promise((resolve, reject) => {
    // fetch does not tell how much has been sent; XMLHttpRequest does.
    const request = new XMLHttpRequest();
    const poll = setInterval(() => {
      if (sent < 1) return;
      void fetch(`/api/v1/imports/${id}`)
        .then(async (answer) => {
          if (!answer.ok) return;
          const state = (await answer.json()) as Schemas['ImportState'];
          worked = state.total > 0 ? state.bytes / state.total : 0;
          lines = state.lines;
          report();
        })
        .catch(() => undefined);
    }, POLL);
    const fail = (detail: string) => reject(new ProblemError({ detail }));
    request.upload.onprogress = (event) => {
      sent = event.total > 0 ? event.loaded / event.total : 0;
      report();
    };
    request.onloadend = () => clearInterval(poll);
    request.onload = () => {
      let answer: unknown;
      try {
        answer = JSON.parse(request.responseText);
      } catch {
        answer = { detail: t`The server answered ${String(request.status)} without saying why.` };
      }
      if (request.status < 300) resolve(answer as T);
      else reject(new ProblemError(answer as Problem));
    };
    request.onerror = () =>
      fail(t`The connection broke. What was stored stays; send the file again and the rest is added.`);
    request.onabort = () =>
      fail(t`Stopped. What was stored until then stays; sending the file again adds the rest.`);
    signal.addEventListener('abort', () => request.abort());
    request.open('POST', path);
    request.setRequestHeader('Content-Type', type);
    request.setRequestHeader('Import-Id', id);
    request.send(body);
  });
}

/** The refused lines as CSV, for the one who has to mend the file. */
export const refusedCsv = (refused: readonly Schemas['RefusedLine'][]): string =>
  csv(
    ['line', 'column', 'reason'],
    refused.map((r) => [r.line, r.column, say(r.says)]),
  );
