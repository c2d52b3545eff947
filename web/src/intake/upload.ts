import { ProblemError, type Problem, type Schemas } from '../api/client';

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

/**
 * Sends a file with progress; giving the signal up cancels it, and what was stored stays.
 * @param form What was answered to the server's questions about how the file is written.
 */
export function send(
  file: File,
  kind: FileKind,
  onProgress: (p: Progress) => void,
  signal: AbortSignal,
  form: Record<string, string> = {},
): Promise<ImportAnswer> {
  const id = crypto.randomUUID();
  let sent = 0;
  let worked = 0;
  let lines = 0;
  const report = () => onProgress({ sent, worked, lines });
  return new Promise((resolve, reject) => {
    // fetch does not tell how much has been sent; XMLHttpRequest does.
    const request = new XMLHttpRequest();
    const poll = setInterval(() => {
      if (kind !== 'readings' || sent < 1) return;
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
    const end = () => clearInterval(poll);
    request.upload.onprogress = (event) => {
      sent = event.total > 0 ? event.loaded / event.total : 0;
      report();
    };
    request.onload = () => {
      end();
      let body: unknown;
      try {
        body = JSON.parse(request.responseText);
      } catch {
        body = { detail: `The server answered ${String(request.status)} without saying why.` };
      }
      if (request.status < 300) resolve(body as ImportAnswer);
      else reject(new ProblemError(body as Problem));
    };
    request.onerror = () => {
      end();
      reject(
        new ProblemError({
          detail: 'The connection broke. What was stored stays; send the file again and the rest is added.',
        }),
      );
    };
    request.onabort = () => {
      end();
      reject(
        new ProblemError({
          detail: 'Stopped. What was stored until then stays; sending the file again adds the rest.',
        }),
      );
    };
    signal.addEventListener('abort', () => request.abort());
    request.open('POST', `/api/v1/${kind}?${new URLSearchParams({ listed: '100000', ...form }).toString()}`);
    request.setRequestHeader('Content-Type', kind === 'fleet' ? 'application/json' : 'text/csv');
    request.setRequestHeader('Import-Id', id);
    request.send(file);
  });
}

/** The refused lines as CSV, for the one who has to mend the file. */
export function refusedCsv(refused: readonly Schemas['RefusedLine'][]): string {
  const cell = (text: string) => (/[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);
  return `line,column,reason\r\n${refused.map((r) => `${String(r.line)},${cell(r.column ?? '')},${cell(r.message)}\r\n`).join('')}`;
}
