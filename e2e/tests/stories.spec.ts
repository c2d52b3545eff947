import type { APIRequestContext, Page } from '@playwright/test';
import { register, send, startJob, tickAll } from './bench-calls.js';
import { typeRun } from './bench-walk.js';
import { expect, test } from './server.js';

// What the bench measures and does comes back to the judgement. Card steps are ticked by another device; what is measured,
// filed and read afterwards goes through the pages.
test.use({ demo: false, file: 'stories' });

/** Types the before-run, lets the other device do the card, files the work. */
async function work(
  page: Page,
  request: APIRequestContext,
  tag: string,
  level: string,
  before: string,
): Promise<number> {
  const id = await startJob(request, tag, level);
  await page.goto(`/bench/${id}`);
  await typeRun(page, '24', before);
  await page.getByRole('button', { name: 'Keep as the before-run' }).click();
  await expect(page.getByText(/^Step 1 (of|to)/)).toBeVisible();
  await tickAll(request, id);
  await page.reload();
  await page.getByRole('button', { name: 'File the work as done' }).click();
  await expect(page.getByRole('heading', { name: /^Waiting for proof/ })).toBeVisible();
  return id;
}

async function proof(page: Page, after: string): Promise<void> {
  await typeRun(page, '24', after);
  await page.getByRole('button', { name: 'Keep as the after-run' }).click();
  await page.getByRole('button', { name: 'File this verdict' }).click();
  await expect(page.getByRole('button', { name: 'File this verdict' })).toHaveCount(0);
}

test('a laptop measured at 85 °C, repasted and measured at 71 °C reads 71 °C and fine, with layers that add up', async ({
  page,
  request,
}) => {
  await register(request, 'LT-1', 'laptop');
  const id = await work(page, request, 'LT-1', 'repaste', '85');
  await proof(page, '71');
  await page.goto('/machines/LT-1');
  await expect(page.getByText(`run of job ${id}`).first()).toBeVisible();
  await expect(page.getByRole('region', { name: 'Judgement' })).toContainText('Fine.');
  await expect(page.getByRole('row', { name: /^Processor/ })).toContainText('71 °C');
  const path = page.getByRole('region', { name: 'Heat path' });
  const said = (await path.getByRole('img').first().getAttribute('aria-label'))!;
  expect(said).toMatch(/^Processor 71 °C: /);
  const layers = [...said.matchAll(/ ([−-]?\d+\.\d) K, fresh/g)].map((m) => Number(m[1]!.replace('−', '-')));
  expect(layers.reduce((a, b) => a + b, 0)).toBeCloseTo(71 - 24, 1);
});

test('a card that came back hotter stands under next at least, and its row says why', async ({
  page,
  request,
}) => {
  await register(request, 'GC-1', 'graphics-card');
  await work(page, request, 'GC-1', 'repaste', '80');
  await proof(page, '91');
  await page.goto('/');
  const row = page.locator('.rounds-row', { hasText: 'GC-1' });
  await expect(row).toContainText('Worse after its repaste');
  await expect(row).toContainText('+11 K');
  const { items } = (await (await request.get('/api/v1/queue')).json()) as {
    items: { asset: string; urgency: string }[];
  };
  expect(['now', 'next']).toContain(items.find((i) => i.asset === 'GC-1')!.urgency);
});

test('a desktop with a before-run typed in has been measured', async ({ page, request }) => {
  await register(request, 'DT-1', 'desktop');
  await page.goto('/machines/DT-1');
  await expect(page.getByRole('region', { name: 'Judgement' })).toContainText('No readings yet.');
  const id = await startJob(request, 'DT-1', 'dust-out');
  await page.goto(`/bench/${id}`);
  await typeRun(page, '24', '78');
  await page.getByRole('button', { name: 'Keep as the before-run' }).click();
  await expect(page.getByText(/^Step 1 (of|to)/)).toBeVisible();
  await page.goto('/machines/DT-1');
  await expect(page.getByText(/Measured once, on .*78 °C/)).toBeVisible();
});

test('a report of a machine that switches itself off outlasts a blow-out that nobody measured', async ({
  page,
  request,
}) => {
  await register(request, 'DT-2', 'desktop');
  await page.goto('/machines/DT-2');
  await page.getByRole('button', { name: 'Report a symptom' }).click();
  await page.getByLabel(/After how many minutes/).fill('12');
  await page.getByRole('button', { name: 'Report it' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  const id = await startJob(request, 'DT-2', 'blow-out');
  await send(request, id, { kind: 'before-excused', reason: 'does not start' });
  await tickAll(request, id);
  await page.goto(`/bench/${id}`);
  await page.getByRole('button', { name: 'File the work as done' }).click();
  await expect(page.getByRole('heading', { name: /^Waiting for proof/ })).toBeVisible();
  await page.goto('/machines/DT-2');
  await expect(page.getByRole('region', { name: 'Judgement' })).toContainText('Switches itself off');
  await expect(page.getByRole('region', { name: 'Judgement' })).toContainText('Now');
});

test('a machine that fails again after the work is down', async ({ page, request }) => {
  await register(request, 'DT-3', 'desktop');
  await work(page, request, 'DT-3', 'repaste', '88');
  await typeRun(page, '24', '72');
  await page.getByLabel('It failed after, minutes').fill('9');
  await page.getByRole('button', { name: 'Keep as the after-run' }).click();
  await expect(page.getByRole('heading', { name: /^Improved/ })).toHaveCount(0);
  await page.goto('/machines/DT-3');
  await expect(page.getByRole('region', { name: 'Judgement' })).toContainText('Now');
  await expect(page.getByRole('region', { name: 'Judgement' })).toContainText('9 minutes');
});

test('a cooler that came off before the job became a fan swap keeps its paste steps and brings new paste', async ({
  page,
  request,
}) => {
  await register(request, 'DT-4', 'desktop');
  const id = await startJob(request, 'DT-4', 'repaste');
  await send(request, id, { kind: 'before-excused', reason: 'does not start' });
  await tickAll(request, id, 'paste-on');
  await send(request, id, { kind: 'level-changed', level: 'fan-swap', reason: 'the bearing is gone' });
  await page.goto(`/bench/${id}/paper`);
  await expect(page.getByText(/new paste/i).first()).toBeVisible();
  await tickAll(request, id);
  await page.goto(`/bench/${id}`);
  await page.getByRole('button', { name: 'File the work as done' }).click();
  await expect(page.getByRole('heading', { name: /^Waiting for proof/ })).toBeVisible();
  await page.goto('/machines/DT-4');
  const history = page.getByRole('region', { name: 'History' });
  await expect(history).toContainText('Service: fan-swap');
  await expect(history).toContainText(/Cooler off; renewed: .*paste.*fan/);
});
