import 'fake-indexeddb/auto';
import { beforeEach, expect, test, vi } from 'vitest';
import type { Outbox } from './outbox';

interface Sent {
  url: string;
  method: string;
  body: { key: string; version: number; madeAt: string; entry: { kind: string; text?: string } } | null;
}

/** The network and the server behind it, as a test wants them. */
let answer: (sent: Sent) => Response | Promise<Response>;
const sent: Sent[] = [];

const json = (status: number, body: unknown) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } });
const job = (version: number) => json(200, { id: 1, version });
const noNetwork = () => Promise.reject(new TypeError('Failed to fetch'));

vi.stubGlobal('localStorage', { getItem: () => 'M. Larkspur', setItem: () => undefined });
vi.stubGlobal('navigator', { locks: { request: (_: string, work: () => Promise<void>) => work() } });
// A page knows where it stands; here addresses need a house.
const Plain = globalThis.Request;
vi.stubGlobal(
  'Request',
  class extends Plain {
    constructor(input: RequestInfo | URL, init?: RequestInit) {
      super(typeof input === 'string' ? new URL(input, 'http://bench') : input, init);
    }
  },
);
vi.stubGlobal('fetch', async (request: Request) => {
  const text = request.method === 'POST' ? await request.clone().text() : '';
  const call = {
    url: new URL(request.url).pathname,
    method: request.method,
    body: text ? (JSON.parse(text) as Sent['body']) : null,
  };
  sent.push(call);
  return answer(call);
});

const { Outbox: Box } = await import('./outbox');
const { device } = await import('./kept');

const JOB = { id: 1, version: 5 };
const noted = (text: string) => ({ kind: 'noted', text }) as const;
const texts = () => sent.map((s) => s.body?.entry.text);
let box: Outbox;

beforeEach(async () => {
  const db = await device();
  await Promise.all([db.clear('outbox'), db.clear('rejected'), db.clear('answers')]);
  sent.length = 0;
  answer = (s) => job((s.body?.version ?? 0) + 1);
  box = new Box();
});

test('an entry is on this device’s disk before it is on its way', async () => {
  let onDisk = -1;
  answer = async () => {
    onDisk = (await (await device()).getAll('outbox')).length;
    return job(6);
  };
  await box.add(JOB, noted('lint'));
  expect(onDisk).toBe(1);
  expect(box.state().waiting).toHaveLength(0);
  expect(box.state().arrived.get(1)?.version).toBe(6);
});

test('without network entries wait, and arrive in their order, each once', async () => {
  answer = noNetwork;
  await box.add(JOB, noted('one'));
  await box.add(JOB, noted('two'));
  await box.add(JOB, noted('three'));
  expect(box.state().unreached).toBe(true);
  expect(box.state().waiting.map((w) => w.entry)).toEqual([noted('one'), noted('two'), noted('three')]);
  sent.length = 0;
  answer = () => job(6);
  await box.send();
  await box.send();
  expect(texts()).toEqual(['one', 'two', 'three']);
  expect(box.state().unreached).toBe(false);
});

test('what was answered by nobody is sent again under the same key', async () => {
  answer = noNetwork;
  await box.add(JOB, noted('one'));
  answer = () => job(6);
  await box.send();
  const keys = sent.map((s) => s.body?.key);
  expect(keys.length).toBeGreaterThan(1);
  expect(new Set(keys).size).toBe(1);
});

test('a device that starts again finds what waited', async () => {
  answer = noNetwork;
  await box.add(JOB, noted('before the battery died'));
  answer = () => job(6);
  const again = new Box();
  await again.send();
  expect(again.state().waiting).toHaveLength(0);
  expect(texts().at(-1)).toBe('before the battery died');
});

test('a server that is broken is waited for, one that refuses is told', async () => {
  answer = () => json(500, { status: 500, detail: 'broken' });
  await box.add(JOB, noted('one'));
  expect(box.state().waiting).toHaveLength(1);
  answer = (s) =>
    s.body?.entry.text === 'one'
      ? json(409, { status: 409, detail: 'This job is not open any more.' })
      : job(6);
  await box.add(JOB, noted('two'));
  expect(box.state().waiting).toHaveLength(0);
  expect(box.state().rejected.map((t) => [t.why, t.waiting.entry])).toEqual([
    ['This job is not open any more.', noted('one')],
  ]);
  expect(texts().at(-1)).toBe('two');
});

test('of two people’s words both are kept until one of them gives way', async () => {
  const theirs = [{ by: 'A. Samphire', madeAt: '2026-03-02T09:00:00Z', says: 'Note: pads torn' }];
  answer = () => json(409, { status: 409, detail: 'Changed meanwhile', theirs });
  await box.add(JOB, noted('fan loud'));
  const rejected = box.state().rejected[0]!;
  expect(rejected.theirs).toEqual(theirs);
  sent.length = 0;
  // Insisting looks first at how the job stands now, and writes under a key and a version of its own.
  answer = () => job(9);
  await box.resubmit(rejected);
  expect(sent.map((s) => s.method)).toEqual(['GET', 'POST']);
  expect(sent[1]?.body).toMatchObject({ version: 9, entry: noted('fan loud') });
  expect(sent[1]?.body?.key).not.toBe(rejected.waiting.key);
  expect(box.state().rejected).toHaveLength(0);
});

test('who gives way sends nothing', async () => {
  answer = () => json(409, { status: 409, detail: 'Changed meanwhile', theirs: [] });
  await box.add(JOB, noted('fan loud'));
  sent.length = 0;
  await box.discard(box.state().rejected[0]!);
  expect(box.state().rejected).toHaveLength(0);
  expect(sent).toHaveLength(0);
});

test('a photo’s bytes go before the entry that tells of them', async () => {
  answer = (s) => (s.method === 'PUT' ? new Response(null, { status: 204 }) : job(6));
  const entry = { kind: 'photo-taken', photo: 'abc' } as never;
  await box.add(JOB, entry, { photo: new Blob(['x'], { type: 'image/png' }) });
  expect(sent.map((s) => [s.method, s.url])).toEqual([
    ['PUT', '/api/v1/jobs/1/photos/abc'],
    ['POST', '/api/v1/jobs/1/entries'],
  ]);
});

test('what happened earlier says so', async () => {
  await box.add(JOB, noted('from paper'), { secondsAgo: 600 });
  const ago = Date.now() - Date.parse(sent[0]!.body!.madeAt);
  expect(ago).toBeGreaterThanOrEqual(600_000);
  expect(ago).toBeLessThan(610_000);
});

test('whatever breaks on the way, the next entry gets its turn', async () => {
  const locks = navigator.locks as unknown as { request: () => Promise<void> };
  const request = locks.request;
  locks.request = () => Promise.reject(new Error('the lock is gone'));
  await expect(box.add(JOB, noted('one'))).rejects.toThrow('the lock is gone');
  locks.request = request;
  await box.add(JOB, noted('two'));
  expect(texts()).toEqual(['one', 'two']);
});

const page = (status: number) =>
  new Response('<html>Sign in</html>', { status, headers: { 'Content-Type': 'text/html' } });

test('a login page in the way keeps everything, and is not asked again and again', async () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  try {
    for (const status of [200, 401, 403]) {
      sent.length = 0;
      answer = () => page(status);
      await box.add(JOB, noted(`behind ${String(status)}`));
      expect(box.state().held).toContain('Sign in');
      await vi.advanceTimersByTimeAsync(60_000);
      expect(sent).toHaveLength(1);
    }
    expect(box.state().waiting).toHaveLength(3);
    expect(box.state().rejected).toHaveLength(0);
    answer = () => job(6);
    await box.send();
    expect(box.state()).toMatchObject({ waiting: [], held: null, unreached: false });
  } finally {
    vi.useRealTimers();
  }
});

test('a session that has run out keeps everything', async () => {
  answer = () => json(401, { status: 401, detail: 'Sign in again.' });
  await box.add(JOB, noted('one'));
  await box.add(JOB, noted('two'));
  expect(box.state()).toMatchObject({ held: 'Sign in again.', rejected: [] });
  expect(box.state().waiting).toHaveLength(2);
});

test('what a proxy finds too large is told, and the others go on', async () => {
  answer = (s) => (s.body?.entry.text === 'huge' ? page(413) : job(6));
  await box.add(JOB, noted('huge'));
  await box.add(JOB, noted('small'));
  expect(box.state().rejected.map((r) => r.waiting.entry)).toEqual([noted('huge')]);
  expect(box.state().waiting).toHaveLength(0);
});

test('a server that breaks over one entry again and again does not hold up the others', async () => {
  answer = (s) => (s.body?.entry.text === 'odd' ? json(500, { status: 500, detail: 'broken' }) : job(6));
  await box.add(JOB, noted('odd'));
  expect(box.state().waiting).toHaveLength(1);
  await box.add(JOB, noted('plain'));
  await box.send();
  await box.send();
  expect(box.state().rejected.map((r) => r.waiting.entry)).toEqual([noted('odd')]);
  expect(box.state().waiting).toHaveLength(0);
  expect(texts().at(-1)).toBe('plain');
});

test('gateways that are down for a moment are waited for as long as it takes', async () => {
  answer = () => page(502);
  await box.add(JOB, noted('one'));
  for (let i = 0; i < 6; i++) await box.send();
  expect(box.state()).toMatchObject({ unreached: true, rejected: [] });
  expect(box.state().waiting).toHaveLength(1);
});
