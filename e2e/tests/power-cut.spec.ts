import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { expect, test, trial } from './server.js';

test.use({ demo: false });

test('killed while importing: the database is whole, and sending the file again completes it', async ({
  server,
}) => {
  test.setTimeout(180_000);
  const post = (path: string, body: BodyInit) =>
    fetch(`${server.url}/api/v1/${path}`, { method: 'POST', body });
  expect((await post('fleet', readFileSync(trial('practice-1/fleet.json')))).ok).toBe(true);
  const readings = gunzipSync(readFileSync(trial('practice-1/readings.csv.gz')));
  const rows = readings.toString('latin1').trim().split('\n').length - 1;
  let partly = 0;
  for (const delay of [350, 700, 1000]) {
    const sending = post('readings', new Uint8Array(readings)).then(
      () => undefined,
      () => undefined,
    );
    await new Promise((r) => setTimeout(r, delay));
    await server.kill();
    await sending;
    await server.launch();
    const answer = (await (await post('readings', 'time,asset\n')).json()) as { accepted: number };
    expect(answer.accepted).toBe(0);
  }
  const answer = (await (await post('readings', new Uint8Array(readings))).json()) as {
    accepted: number;
    duplicates: number;
    rejectedCount: number;
  };
  partly = answer.duplicates;
  expect(answer.accepted + answer.duplicates).toBe(rows);
  expect(answer.rejectedCount).toBe(0);
  expect(partly).toBeGreaterThan(0);
});

test('killed at random moments through a job: no confirmed tick is lost', async ({ server }) => {
  test.setTimeout(180_000);
  const call = async (method: string, path: string, body: unknown) => {
    const answer = await fetch(`${server.url}/api/v1/${path}`, { method, body: JSON.stringify(body) });
    return (await answer.json()) as {
      id: number;
      version: number;
      steps: { id: string; doneAt: string | null }[];
    };
  };
  await fetch(`${server.url}/api/v1/fleet`, {
    method: 'POST',
    body: readFileSync(trial('practice-1/fleet.json')),
  });
  let job = await call('POST', 'jobs', { asset: 'GC-0010', level: 'repad' });
  job = await call('PATCH', `jobs/${job.id}`, { noBeforeReason: 'does not start', version: job.version });
  const confirmed = new Set<string>();
  for (const [i, step] of job.steps.entries()) {
    job = await call('POST', `jobs/${job.id}/steps/${step.id}`, { done: true, version: job.version });
    confirmed.add(step.id);
    if (i % 4 === 3) {
      // A write in flight may be lost; what was answered may not.
      void call('PATCH', `jobs/${job.id}`, { note: `at ${i}`, version: job.version }).catch(() => undefined);
      await new Promise((r) => setTimeout(r, Math.random() * 6));
      await server.kill();
      await server.launch();
      job = (await (await fetch(`${server.url}/api/v1/jobs/${job.id}`)).json()) as typeof job;
    }
    const done = new Set(job.steps.filter((s) => s.doneAt).map((s) => s.id));
    expect([...confirmed].filter((id) => !done.has(id))).toEqual([]);
  }
});
