import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import type { APIRequestContext, Page } from '@playwright/test';
import { register, tickAll } from './bench-calls.js';
import { doAllSteps } from './bench-walk.js';
import { expect, ROOT, test } from './server.js';

// Five of the stories that the API's tests go through, typed and tapped in the browser: the same figures, the same sentences.
test.use({ demo: false, file: 'jobs-by-hand', viewport: { width: 390, height: 844 } });

interface Run {
  workload: string;
  minutes: number;
  ambientCelsius: number | null;
  fan: { mode: 'fixed' | 'auto'; percent: number | null; rpm: number | null };
  settings: string;
  powerWatts?: number;
  score?: number;
  position?: string;
  parts: { part: string; celsius: number }[];
}

interface Story {
  title: string;
  kind: string;
  level: string;
  before: Run[];
  after: Run[];
  complaint?: object;
  fixed?: boolean;
  notes?: object;
  excuse?: string;
  headline: string;
  headlineParts?: string[];
  advice: string[];
  remedies?: string[];
}

const STORIES = JSON.parse(readFileSync(resolve(ROOT, 'tests/stories/jobs.json'), 'utf8')) as Story[];

/** Walked step by step, or ticked by another device while the runs are typed. */
const TOLD: readonly [title: string, walked: boolean][] = [
  ['A laptop after three years: paste and dust, two loads', false],
  ['A laptop that got wet', true],
  ['A card on a loop', true],
  ['Undervolted and no slower', true],
  ['A stand under a laptop at its limit', false],
];

const PARTS: Record<string, string> = { cpu: 'Processor', gpu: 'Graphics chip', hotspot: 'Hot spot' };
const nameOf = (part: string) => PARTS[part] ?? part.charAt(0).toUpperCase() + part.slice(1);

/** The machine of a story, of a model of its own, with the model's notes where the story has some. */
async function prepare(request: APIRequestContext, tag: string, story: Story): Promise<void> {
  const parts = [...new Set([...story.before, ...story.after].flatMap((r) => r.parts.map((p) => p.part)))];
  const model = `Model of ${tag}`;
  await register(request, tag, story.kind, { model, parts, inServiceSince: '2024-02-01' });
  if (!story.notes) return;
  const at = `/api/v1/models/notes?model=${encodeURIComponent(model)}`;
  const known = (await (await request.get(at)).json()) as { notes: object; version: number };
  const kept = await request.put('/api/v1/models/notes', {
    data: { notes: { ...known.notes, ...story.notes }, version: known.version },
  });
  expect(kept.status()).toBe(200);
}

async function typeRun(page: Page, run: Run): Promise<void> {
  const fill = (label: string, value: number | string | null | undefined) =>
    value === null || value === undefined
      ? Promise.resolve()
      : page.getByLabel(label, { exact: true }).fill(String(value));
  await fill('Load', run.workload);
  await fill('Minutes under load', run.minutes);
  await fill('Air, °C', run.ambientCelsius);
  await page
    .locator('.ant-form-item', { hasText: /^Fan/ })
    .getByText(run.fan.mode, { exact: true })
    .first()
    .click();
  await fill('Fan, %', run.fan.percent);
  await fill('Fan, rpm', run.fan.rpm);
  await fill('Settings', run.settings);
  await fill('How it stands', run.position);
  await fill('Power, W', run.powerWatts);
  await fill('Score', run.score);
  for (const { part, celsius } of run.parts) await fill(`${nameOf(part)}, settled, °C`, celsius);
}

TOLD.forEach(([title, walked], i) =>
  test(title, async ({ page, request }) => {
    test.setTimeout(240_000);
    const story = STORIES.find((s) => s.title === title)!;
    const tag = `BH-${String(i + 1)}`;
    await prepare(request, tag, story);
    const started = await request.post('/api/v1/jobs', {
      data: { asset: tag, level: story.level, complaint: story.complaint ?? null },
    });
    expect(started.status()).toBe(201);
    const { id } = (await started.json()) as { id: number };
    await page.addInitScript(() => localStorage.setItem('pyrometron.name', 'Mira'));
    await page.goto(`/bench/${String(id)}`);
    for (const [n, run] of story.before.entries()) {
      if (n > 0) await page.getByRole('button', { name: /^Another run before/ }).click();
      await typeRun(page, run);
      await page.getByRole('button', { name: 'Keep as the before-run' }).click();
      await expect(page.getByText(run.workload).first()).toBeVisible();
    }
    await expect(page.getByText(/^Step 1/)).toBeVisible();
    if (walked) await doAllSteps(page);
    else {
      await tickAll(request, id);
      await page.reload();
    }
    await page.getByRole('button', { name: 'File the work as done' }).click();
    for (const [n, run] of story.after.entries()) {
      if (n > 0) await page.getByRole('button', { name: /^Measure (the next load|again)/ }).click();
      await expect(page.getByRole('heading', { name: /^Waiting for proof/ })).toBeVisible();
      await typeRun(page, run);
      await page.getByRole('button', { name: 'Keep as the after-run' }).click();
      await expect(page.getByRole('region', { name: 'Verdict' })).toBeVisible();
    }
    if (story.fixed !== undefined)
      await page.getByText(story.fixed ? 'Gone: it ran through' : 'Not gone, or not shown yet').click();
    await page.getByRole('button', { name: 'File this verdict' }).click();
    await expect(page.getByRole('link', { name: 'The proof sheet for its owner' })).toBeVisible();
    const verdict = page.getByRole('region', { name: 'Verdict' }).first();
    for (const words of [story.headline, ...(story.headlineParts ?? [])])
      await expect(verdict.getByRole('heading').first()).toContainText(words);
    // The machines that the wet one is held against are not there.
    for (const words of story.advice.filter((a) => !a.includes('others of its model')))
      await expect(verdict).toContainText(words);
    const offered = page.getByRole('region', { name: 'What else would help' });
    await expect(offered.getByRole('button')).toHaveCount(story.remedies?.length ?? 0);
  }),
);
