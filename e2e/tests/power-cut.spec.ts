import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { expect, Server, test, trial } from './server.js';

test.use({ demo: false, file: 'power-cut' });

test('killed while importing: the database is whole, and sending the file again completes it', async ({
  server,
}) => {
  test.setTimeout(180_000);
  const post = (path: string, body: BodyInit) =>
    server.post(path, body, path === 'fleet' ? 'application/json' : 'text/csv');
  expect((await post('fleet', readFileSync(trial('practice-1/fleet.json')))).ok).toBe(true);
  const readings = gunzipSync(readFileSync(trial('practice-1/readings.csv.gz')));
  const rows = readings.toString('latin1').trim().split('\n').length - 1;
  let partly = 0;
  // A slow machine has stored nothing yet when a fast one is nearly done.
  for (const delay of [350, 1000, 2500]) {
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

/** How often the power is cut: few here, a hundred with KILLS=100 (bench/README.md). */
const KILLS = Number(process.env['KILLS'] ?? 4);

test('killed at random moments through a job: no confirmed tick is lost, none is doubled', async () => {
  test.setTimeout(420_000);
  // Starting again takes most of the time: two houses side by side.
  const houses = await Promise.all(['left', 'right'].map((name) => Server.start(name, false)));
  await Promise.all(houses.map((house) => cutAndLook(house, KILLS / 2)));
  await Promise.all(houses.map((house) => house.stop()));
});

async function cutAndLook(server: Server, kills: number): Promise<void> {
  await server.post('fleet', readFileSync(trial('practice-1/fleet.json')));
  interface Job {
    id: number;
    version: number;
    minutes: number;
    counts: { item: string; out: number }[];
    steps: { id: string; doneAt: string | null }[];
  }
  const begun = await server.post(
    'jobs',
    JSON.stringify({ asset: 'GC-0010', level: 'repad', warrantyAnswer: 'agreed' }),
  );
  let job = (await begun.json()) as Job;
  const url = () => `${server.url}/api/v1/jobs/${job.id}`;
  const send = (key: string, entry: unknown) =>
    server.post(
      `jobs/${job.id}/entries`,
      JSON.stringify({ key, version: job.version, device: 'script', entry }),
    );
  await send(crypto.randomUUID(), { kind: 'before-excused', reason: 'does not start' });
  let confirmedOut = 0;
  let confirmedMinutes = 0;
  for (let kill = 0; kill < kills; kill++) {
    // A few writes one after the other; the power goes after any of them, at any moment of the next ones.
    // The first time after a few, so that something is confirmed that could be lost.
    const after = kill === 0 ? 4 : Math.floor(Math.random() * 8);
    let cut = Promise.resolve();
    const unanswered: { key: string; entry: object }[] = [];
    for (let n = 0; n < 30; n++) {
      if (n === after) cut = new Promise((r) => setTimeout(r, Math.random() * 20)).then(() => server.kill());
      const key = crypto.randomUUID();
      const entry =
        n % 2 === 0
          ? { kind: 'counted', what: 'screws', item: '6 mm PH1', out: confirmedOut + 1, in: 0 }
          : { kind: 'minutes-booked', minutes: 1 };
      try {
        const answer = await send(key, entry);
        if (!answer.ok) throw new Error(String(answer.status));
        if (entry.kind === 'counted') confirmedOut++;
        else confirmedMinutes++;
        if (confirmedOut > 400) confirmedOut = 0;
      } catch {
        unanswered.push({ key, entry });
        break;
      }
    }
    await cut;
    await server.launch();
    job = (await (await fetch(url())).json()) as Job;
    const out = job.counts.find((c) => c.item === '6 mm PH1')?.out ?? 0;
    const lost = unanswered[0]?.entry as { kind: string } | undefined;
    expect(out === confirmedOut || (lost?.kind === 'counted' && out === confirmedOut + 1)).toBe(true);
    expect(
      job.minutes === confirmedMinutes ||
        (lost?.kind === 'minutes-booked' && job.minutes === confirmedMinutes + 1),
    ).toBe(true);
    // What got no answer is sent again with its key: it counts once, whether it had arrived or not.
    for (const { key, entry } of unanswered) {
      const answer = await send(key, entry);
      expect(answer.ok).toBe(true);
      job = (await answer.json()) as Job;
      if ((entry as { kind: string }).kind === 'counted') confirmedOut++;
      else confirmedMinutes++;
      expect(job.minutes).toBe(confirmedMinutes);
    }
  }
  expect(confirmedMinutes).toBeGreaterThan(0);
}
