import { randomUUID } from 'node:crypto';
import { expect, type APIRequestContext } from '@playwright/test';

interface Step {
  id: string;
  form: string;
  doneAt: string | null;
  gate: string[];
  timer: { required: boolean; seconds: number } | null;
}

interface Count {
  what: string;
  item: string;
  out: number;
}

interface Job {
  id: number;
  version: number;
  steps: Step[];
  expected: Count[];
  counts: Count[];
}

/** A machine that nobody has read a sensor of. */
export async function register(
  request: APIRequestContext,
  tag: string,
  kind: string,
  more: { model?: string; parts?: readonly string[]; inServiceSince?: string } = {},
): Promise<void> {
  const parts = more.parts ?? [kind === 'graphics-card' ? 'hotspot' : 'cpu'];
  const answer = await request.post('/api/v1/fleet', {
    data: {
      format: 'pyrometron-fleet/1',
      sites: [
        {
          code: 'S',
          name: 'Harbour office',
          altitudeMetres: 5,
          zones: [{ code: 'Z', name: 'Chart room', dust: 'normal', designAmbientCelsius: 30 }],
        },
      ],
      assets: [
        {
          tag,
          kind,
          model: more.model ?? 'Gannet',
          zone: 'Z',
          dutyHoursPerDay: 8,
          inServiceSince: more.inServiceSince ?? '2026-02-01',
          parts: parts.map((part) => ({
            part,
            limitCelsius: part === 'hotspot' && parts.length > 1 ? 110 : 100,
            interface: part === 'memory' ? 'pad' : 'paste',
          })),
          services: [],
        },
      ],
    },
  });
  expect(answer.status()).toBe(200);
}

/** Starts a job as another device would. */
export async function startJob(request: APIRequestContext, asset: string, level: string): Promise<number> {
  const answer = await request.post('/api/v1/jobs', { data: { asset, level } });
  expect(answer.status()).toBe(201);
  return ((await answer.json()) as Job).id;
}

/** Writes one entry as another device would. */
export async function send(
  request: APIRequestContext,
  id: number,
  entry: object,
  madeAt?: Date,
): Promise<Job> {
  const { version } = (await (await request.get(`/api/v1/jobs/${id}`)).json()) as Job;
  const answer = await request.post(`/api/v1/jobs/${id}/entries`, {
    data: { key: randomUUID(), version, device: 'tablet', by: 'M. Larkspur', madeAt: madeAt ?? null, entry },
  });
  expect(answer.status(), await answer.text()).toBe(200);
  return (await answer.json()) as Job;
}

/** Ticks what is left of the card; its timers began long enough ago, so that nobody has to wait for them. */
export async function tickAll(request: APIRequestContext, id: number, until?: string): Promise<void> {
  const job = (await (await request.get(`/api/v1/jobs/${id}`)).json()) as Job;
  for (const step of job.steps.filter((s) => s.doneAt === null)) {
    if (step.id === until) return;
    if (step.form === 'inspection') await send(request, id, { kind: 'found', about: 'dust', grade: '2' });
    if (step.form === 'joint-inspection')
      await send(request, id, { kind: 'found', about: 'paste', grade: 'dry' });
    await count(request, id, step.form);
    if (step.timer?.required)
      await send(
        request,
        id,
        { kind: 'timer-started', timer: step.id, seconds: step.timer.seconds },
        new Date(Date.now() - step.timer.seconds * 1000 - 1000),
      );
    await send(request, id, { kind: 'step-done', step: step.id, checks: step.gate });
  }
}

/** Counts as many as the notes list, or four screws and one lead; and all of them in again. */
async function count(request: APIRequestContext, id: number, form: string): Promise<void> {
  const [what, going] = form.split('-');
  if (what !== 'screws' && what !== 'connectors') return;
  const job = (await (await request.get(`/api/v1/jobs/${id}`)).json()) as Job;
  const of = (counts: Count[]) => counts.filter((c) => c.what === what);
  const listed = of(going === 'out' ? job.expected : job.counts);
  const usual = what === 'screws' ? { item: '4 mm PH1', out: 4 } : { item: 'fan lead', out: 1 };
  for (const { item, out } of listed.length > 0 || going === 'in' ? listed : [usual])
    await send(request, id, { kind: 'counted', what, item, out, in: going === 'in' ? out : 0 });
}
