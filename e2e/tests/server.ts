import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, rmSync } from 'node:fs';
import { get } from 'node:https';
import { createServer } from 'node:net';
import { resolve } from 'node:path';
import { test as base } from '@playwright/test';

export const ROOT = resolve(import.meta.dirname, '../..');

/** The demo's data, made once for all servers of a run (`make-demo.ts`). */
const MADE_DEMO = resolve(ROOT, 'e2e/.work/made-demo');

/** The real server with a real database file, in a process of its own that can be killed. */
export class Server {
  private process: ChildProcess | null = null;
  private constructor(
    private readonly folder: string,
    private readonly demo: boolean,
    readonly port: number,
    /** Whether everybody signs in, over HTTPS. */
    private readonly house: boolean,
  ) {}

  /** What it said on the console. */
  said = '';

  get url(): string {
    return this.house ? `https://localhost:${this.port}` : `http://127.0.0.1:${this.port}`;
  }

  static async start(name: string, demo: boolean, house = false): Promise<Server> {
    const folder = resolve(ROOT, 'e2e/.work', `${name}-${process.pid}`);
    rmSync(folder, { recursive: true, force: true });
    if (demo && existsSync(MADE_DEMO)) cpSync(MADE_DEMO, folder, { recursive: true });
    else mkdirSync(folder, { recursive: true });
    const server = new Server(folder, demo, await freePort(), house);
    await server.launch();
    return server;
  }

  /** Lays the demo that was made for all servers where this one keeps the demo beside its own data. */
  layDemoBeside(): void {
    if (existsSync(MADE_DEMO)) cpSync(MADE_DEMO, resolve(this.folder, 'demo'), { recursive: true });
  }

  async launch(): Promise<void> {
    this.process = spawn(
      'dotnet',
      [
        resolve(ROOT, 'src/Pyrometron.Server/bin/Release/net10.0/Pyrometron.Server.dll'),
        '--contentRoot',
        resolve(ROOT, 'src/Pyrometron.Server'),
        '--data',
        this.folder,
        '--port',
        String(this.port),
        '--demo',
        String(this.demo),
        ...(this.house ? ['--solo', 'false'] : []),
      ],
      { stdio: ['ignore', this.house ? 'pipe' : 'ignore', 'ignore'] },
    );
    this.process.stdout?.on('data', (data: Buffer) => (this.said += data.toString()));
    for (let i = 0; i < 1200; i++) {
      if (await this.answers()) return;
      await new Promise((r) => setTimeout(r, 50));
    }
    throw new Error('The server did not come up within a minute.');
  }

  private answers(): Promise<boolean> {
    const health = `${this.url}/api/v1/health`;
    if (!this.house)
      return fetch(health).then(
        (r) => r.ok,
        () => false,
      );
    // Its certificate is one that nobody knows yet.
    return new Promise((done) => {
      get(health, { rejectUnauthorized: false }, (answer) => {
        answer.resume();
        done(answer.statusCode === 200);
      }).on('error', () => done(false));
    });
  }

  /** Sends a body, a string as JSON. */
  post(path: string, body: BodyInit, type = 'application/json'): Promise<Response> {
    return fetch(`${this.url}/api/v1/${path}`, { method: 'POST', body, headers: { 'Content-Type': type } });
  }

  /** Ends it as a power cut would. */
  async kill(): Promise<void> {
    await this.end('SIGKILL');
  }

  /** Makes the demo's data for all that come after, and keeps them. */
  static async makeDemo(): Promise<void> {
    rmSync(MADE_DEMO, { recursive: true, force: true });
    mkdirSync(MADE_DEMO, { recursive: true });
    const server = new Server(MADE_DEMO, true, await freePort(), false);
    await server.launch();
    // Its weeks are planned twice, the second time with somebody away, and its news is found: else each copy would do it anew.
    const read = async (path: string) => (await fetch(`${server.url}/api/v1/${path}`)).json();
    for (let i = 0; i < 600; i++) {
      const weeks = (await read('weeks')) as { plan: { canTakeBack: boolean } | null };
      const news = (await read('notices')) as { notices: unknown[] };
      if (weeks.plan?.canTakeBack && news.notices.length > 0) break;
      await new Promise((r) => setTimeout(r, 100));
    }
    await server.end('SIGINT');
  }

  async stop(): Promise<void> {
    await this.end('SIGINT');
    rmSync(this.folder, { recursive: true, force: true });
  }

  private async end(signal: 'SIGKILL' | 'SIGINT'): Promise<void> {
    const child = this.process;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((r) => child.once('exit', r));
    child.kill(signal);
    await gone;
  }
}

export function freePort(): Promise<number> {
  return new Promise((done, fail) => {
    const probe = createServer();
    probe.once('error', fail);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => done(typeof address === 'object' && address ? address.port : 0));
    });
  });
}

/**
 * Tests with a server of their own: on the demo, or empty. Files that name themselves share theirs with no other file.
 */
export const test = base.extend<object, { demo: boolean; file: string; server: Server }>({
  demo: [true, { scope: 'worker', option: true }],
  file: ['', { scope: 'worker', option: true }],
  server: [
    async ({ demo, file }, use, info) => {
      const server = await Server.start(`${demo ? 'demo' : 'empty'}${file}-${info.workerIndex}`, demo);
      await use(server);
      await server.stop();
    },
    { scope: 'worker', timeout: 90_000 },
  ],
  baseURL: async ({ server }, use) => use(server.url),
  // Timers of the bench are not waited for: a test turns the page's clock on.
  page: async ({ page }, use) => {
    await page.clock.install();
    await use(page);
  },
});

export { expect } from '@playwright/test';

/** The repository's own copy of a trial fleet. */
export const trial = (file: string) => resolve(ROOT, 'trial', file);
