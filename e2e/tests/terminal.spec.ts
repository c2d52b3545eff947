import { spawn, type ChildProcess } from 'node:child_process';
import { connect } from 'node:net';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { expect, test } from '@playwright/test';
import { freePort } from './server.js';

const ROOT = resolve(import.meta.dirname, '../..');

/** What is sent to a program that was started as a person starts it. */
interface Started {
  process: ChildProcess;
  port: number;
  said: () => string;
  ended: Promise<unknown>;
}

/** Starts ./run.sh, in a pseudo-terminal of its own where asked for, and waits until it says where it is. */
async function start(folder: string, terminal: boolean): Promise<Started> {
  const port = await freePort();
  const line = `./run.sh --no-build --empty --data '${folder}' --port ${String(port)}`;
  const process = terminal
    ? spawn('script', ['-qfec', line, '/dev/null'], { cwd: ROOT, stdio: ['pipe', 'pipe', 'pipe'] })
    : spawn('bash', ['-c', `exec ${line}`], { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
  let text = '';
  for (const stream of [process.stdout, process.stderr])
    stream?.on('data', (b: Buffer) => (text += b.toString()));
  const ended = new Promise((done) => process.on('exit', done));
  await expect.poll(() => text, { timeout: 60_000 }).toContain(`http://127.0.0.1:${String(port)}`);
  return { process, port, said: () => text, ended };
}

const isTaken = (port: number) =>
  new Promise<boolean>((done) => {
    const socket = connect(port, '127.0.0.1');
    socket.on('connect', () => (socket.destroy(), done(true)));
    socket.on('error', () => done(false));
  });

const within = (ended: Promise<unknown>, seconds: number) =>
  Promise.race([
    ended.then(() => 'ended'),
    new Promise((r) => setTimeout(() => r('still there'), seconds * 1000)),
  ]);

for (const [how, terminal, end] of [
  ['Ctrl-C in a terminal', true, (s: Started) => s.process.stdin?.write('\x03')],
  ['SIGTERM to the script', false, (s: Started) => s.process.kill('SIGTERM')],
] as const)
  test(`${how} ends script and server, and frees port and folder`, async () => {
    const folder = mkdtempSync(join(tmpdir(), 'pyrometron-'));
    try {
      const first = await start(folder, terminal);
      expect(await isTaken(first.port)).toBe(true);
      end(first);
      expect(await within(first.ended, 10), first.said()).toBe('ended');
      // Stopped, not cut off: what was being stored is finished first.
      expect(first.said()).toContain('shutting down');
      expect(await isTaken(first.port)).toBe(false);
      // The folder is free at once, and its database whole.
      const second = await start(folder, terminal);
      end(second);
      expect(await within(second.ended, 10), second.said()).toBe('ended');
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });

test('a second server on the same folder says so in one line and ends', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'pyrometron-'));
  const first = await start(folder, false);
  try {
    const second = spawn(
      './run.sh',
      ['--no-build', '--empty', '--data', folder, '--port', String(await freePort())],
      { cwd: ROOT },
    );
    let said = '';
    for (const stream of [second.stdout, second.stderr])
      stream.on('data', (b: Buffer) => (said += b.toString()));
    expect(await new Promise((done) => second.on('exit', done))).toBe(1);
    expect(said.trim()).toMatch(
      /^Pyrometron cannot start: Another Pyrometron is at work on \S+\. Stop it first[^\n]*$/,
    );
  } finally {
    first.process.kill('SIGTERM');
    await first.ended;
    rmSync(folder, { recursive: true, force: true });
  }
});

test('an address that HTTP does not allow is answered by a problem document', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'pyrometron-'));
  const server = await start(folder, false);
  try {
    const answer = await new Promise<string>((done) => {
      const socket = connect(server.port, '127.0.0.1', () =>
        socket.write('GET /api/v1/assets/%00 HTTP/1.1\r\nHost: localhost\r\n\r\n'),
      );
      let text = '';
      socket.on('data', (b) => (text += b.toString()));
      socket.on('close', () => done(text));
    });
    expect(answer).toMatch(/^HTTP\/1.1 400 /);
    expect(answer).toContain('application/problem+json');
    expect(JSON.parse(answer.split('\r\n\r\n')[1] ?? '')).toMatchObject({ status: 400 });
  } finally {
    server.process.kill('SIGTERM');
    await server.ended;
    rmSync(folder, { recursive: true, force: true });
  }
});
