import { AxeBuilder } from '@axe-core/playwright';
import type { APIRequestContext, Page } from '@playwright/test';
import { doAllSteps, doStep, typeRun, withoutBefore } from './bench-walk.js';
import { expect, test } from './server.js';

test.use({ demo: true, viewport: { width: 390, height: 844 } });

interface Job {
  id: number;
  version: number;
  note: string | null;
  minutes: number;
  steps: { id: string; doneAt: string | null }[];
  counts: { item: string; out: number }[];
  photos: { key: string }[];
  findings: { about: string }[];
}

async function start(request: APIRequestContext, asset: string, level: string): Promise<number> {
  const answer = await request.post('/api/v1/jobs', {
    data: { asset, level, warrantyAnswer: 'The seller agreed by letter.' },
  });
  expect(answer.status()).toBe(201);
  return ((await answer.json()) as Job).id;
}

const jobOf = async (request: APIRequestContext, id: number) =>
  (await (await request.get(`/api/v1/jobs/${String(id)}`)).json()) as Job;

test('a card is worked through on a phone: gates, tray, grades, timer, then proof, sheet and log book', async ({
  page,
}) => {
  test.setTimeout(240_000);
  await page.goto('/bench/new?asset=LT-0011&level=dust-out');
  await expect(page.getByRole('button', { name: 'Start: dust-out' })).toBeVisible();
  const why = page.getByLabel('Why it is opened all the same');
  if (await why.isVisible()) await why.fill('The seller agreed by letter.');
  await page.getByRole('button', { name: 'Start: dust-out' }).click();

  await page.getByRole('button', { name: 'Write one down' }).click();
  await page.getByLabel('Minutes until it happens').fill('9');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('once it has run 18 minutes')).toBeVisible();
  await typeRun(page, '24', '91');
  await page.getByRole('button', { name: 'Keep as the before-run' }).click();

  await expect(page.getByText(/^Step 1 (of|to)/)).toBeVisible();
  await doStep(page);
  await doStep(page);
  // What was said by its owner may be confirmed with one tap; what guards a person stays shut until each thing is confirmed.
  await expect(page.getByRole('button', { name: 'All 2 confirmed' })).toBeEnabled();
  const [gate, bar] = [page.locator('.bench-gate input'), page.locator('.bench-bar')];
  const shut = bar.getByRole('button', { name: /to confirm/ });
  for (let i = 0; i < 10 && !((await shut.isVisible()) && (await gate.count()) > 1); i++) await doStep(page);
  await expect(shut).toBeDisabled();
  const things = await gate.count();
  await gate.first().check();
  await expect(bar.getByRole('button', { name: `${String(things - 1)} to confirm` })).toBeDisabled();
  await expect(page.getByRole('button', { name: /Leave this step out/ })).toHaveCount(0);
  await page.reload();
  await doAllSteps(page);
  await page.getByRole('button', { name: 'File the work as done' }).click();

  await expect(page.getByRole('heading', { name: 'Waiting for proof: measure it again.' })).toBeVisible();
  await typeRun(page, '25', '81');
  await page.getByLabel('Minutes under load').fill('12');
  await expect(page.getByText('it counts as fixed after 18')).toBeVisible();
  await page.getByLabel('Minutes under load').fill('25');
  await page.getByRole('button', { name: 'Keep as the after-run' }).click();
  await expect(page.getByRole('heading', { name: /^Cooler than before/ })).toBeVisible();
  await page.getByText('Gone: it ran through').click();
  await page.getByRole('button', { name: 'File this verdict' }).click();
  await expect(page.getByText('It is gone.')).toBeVisible();
  await page.getByRole('button', { name: /Hand it back/ }).click();
  await page.getByLabel('To whom').fill('Survey boat Dunlin');
  await page.getByRole('button', { name: 'Handed back', exact: true }).click();
  await page.getByRole('link', { name: 'The proof sheet for its owner' }).click();
  await expect(page.getByText('Handed back to Survey boat Dunlin')).toBeVisible();
  await expect(page.getByText(/below its limit/)).toBeVisible();

  await page.goto('/log?asset=LT-0011');
  await expect(page.getByText('Handed back to Survey boat Dunlin')).toBeVisible();
  await page.getByRole('combobox', { name: 'Kind' }).click();
  await page.getByTitle('Findings').click();
  await expect(page.getByText(/Found: dust in the fins/)).toBeVisible();
  await expect(page.getByText('Handed back')).toHaveCount(0);
});

test('without network half a job is kept on the device, survives a reload, and arrives once and in order', async ({
  page,
  server,
}) => {
  test.setTimeout(240_000);
  const id = await start(page.request, 'DT-0015', 'dust-out');
  await page.goto('/');
  await expect(page.locator('.rounds-row').first()).toBeVisible();
  await page.goto('/bench');
  await expect(page.getByRole('link', { name: /DT-0015/ }).first()).toBeVisible();
  await withoutBefore(page, id);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await doStep(page);
  await doStep(page);

  await server.kill();
  for (let i = 0; i < 4; i++) await doStep(page);
  await expect(page.getByText('No network.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Note' }).fill('lint in the intake');
  await page.getByRole('textbox', { name: 'Note' }).blur();
  await page.getByLabel('More: Wipes').click();
  await page.getByLabel('More: Wipes').click();
  await page.getByLabel('Minutes to book').fill('15');
  await page.getByRole('button', { name: 'Book', exact: true }).click();
  await page.setInputFiles('input[aria-label="Photo file"]', {
    name: 'fins.png',
    mimeType: 'image/png',
    buffer: await page.screenshot(),
  });
  await expect(page.locator('.photos img')).toHaveCount(1);
  const confirmed = page.getByText(/^Step \d+( to \d+)? of/);
  const at = (await confirmed.textContent())!;

  await page.reload();
  await expect(confirmed).toHaveText(at, { timeout: 20_000 });
  await expect(page.getByRole('textbox', { name: 'Note' })).toHaveValue('lint in the intake');
  await expect(page.locator('.photos img')).toHaveCount(1);
  await doStep(page);

  // Without network the other places show what was known, and the way back to the job.
  const done = await page.locator('.bench-box.done').count();
  await page.getByRole('link', { name: 'Rounds' }).click();
  await expect(page.getByText('What is shown here was known last.')).toBeVisible();
  await expect(page.locator('.rounds-row').first()).toBeVisible();
  await page.getByRole('link', { name: 'Bench' }).click();
  await expect(page.getByRole('heading', { name: /in hand/ })).toBeVisible();
  await page.getByRole('link', { name: /^In hand: DT-0015/ }).click();
  await expect(confirmed).toBeVisible();

  await server.launch();
  await expect(page.getByText('No network.')).toHaveCount(0, { timeout: 30_000 });
  const ticked = async () => (await jobOf(page.request, id)).steps.filter((s) => s.doneAt !== null).length;
  await expect.poll(ticked, { timeout: 30_000 }).toBe(done);
  const job = await jobOf(page.request, id);
  expect(job.minutes).toBe(15);
  expect(job.note).toBe('lint in the intake');
  expect(job.photos).toHaveLength(1);
  const log = (await (
    await page.request.get('/api/v1/log?asset=DT-0015&kinds=material-used,minutes-booked,photo-taken')
  ).json()) as { total: number };
  expect(log.total).toBe(4);
  expect((await page.request.get(`/api/v1/photos/${job.photos[0]!.key}?small=true`)).ok()).toBe(true);
});

test('two people on one job see what the other did, and neither is overwritten', async ({
  page,
  browser,
  baseURL,
}) => {
  const id = await start(page.request, 'DT-0007', 'dust-out');
  await withoutBefore(page, id);
  const second = await (await browser.newContext({ baseURL: baseURL! })).newPage();
  await second.goto(`/bench/${String(id)}`);
  await expect(second.getByText(/^Step 1 (of|to)/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Note' }).fill('pads torn');
  await page.getByRole('textbox', { name: 'Note' }).blur();
  await expect.poll(async () => (await jobOf(page.request, id)).note).toBe('pads torn');
  await second.getByRole('textbox', { name: 'Note' }).fill('fan loud');
  await second.getByRole('textbox', { name: 'Note' }).blur();
  const both = second.getByText('Two people changed the same thing.').locator('..');
  await expect(both).toContainText('Note: pads torn');
  await expect(both).toContainText('fan loud');
  expect((await jobOf(page.request, id)).note).toBe('pads torn');
  await second.getByRole('button', { name: 'Write mine over it' }).click();
  await expect.poll(async () => (await jobOf(page.request, id)).note).toBe('fan loud');
  await second.context().close();
});

test('a run with the simulated probe: still rising is said before it is stopped', async ({ page }) => {
  const id = await start(page.request, 'SV-0021', 'dust-out');
  await page.goto(`/bench/${String(id)}`);
  await page.getByRole('button', { name: 'Try it with the simulated probe' }).click();
  await expect(page.getByText(/Still rising/).first()).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText(/Settled: it can be stopped/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: /^Stop/ }).last().click();
  await expect(page.getByLabel(/^Processor, settled|^Cpu, settled|^CPU, settled/i)).not.toHaveValue('');
  await page.getByRole('button', { name: 'Keep as the before-run' }).click();
  await expect(page.getByText(/^Step 1 (of|to)/)).toBeVisible();
});

test('a photo that is none is said so, and one that is shows its thumbnail', async ({ page }) => {
  const id = await start(page.request, 'DT-0022', 'repaste');
  await withoutBefore(page, id);
  const input = 'input[aria-label="Photo file"]';
  await page.setInputFiles(input, { name: 'x.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('a letter') });
  await expect(page.getByText(/no picture that can be read/)).toBeVisible();
  await page.getByRole('button', { name: 'Understood' }).click();
  await page.setInputFiles(input, {
    name: 'y.jpg',
    mimeType: 'image/jpeg',
    buffer: Buffer.alloc(13 * 1024 * 1024),
  });
  await expect(page.getByText('y.jpg is larger than 12 MB')).toBeVisible();
  await page.setInputFiles(input, { name: 'z.png', mimeType: 'image/png', buffer: await page.screenshot() });
  await expect(page.locator('.photos img[src^="/api/"]')).toHaveCount(1);
  await page.locator('.photos img').scrollIntoViewIfNeeded();
  await expect(page.locator('.photos img')).toHaveJSProperty('naturalWidth', 147);
  expect((await jobOf(page.request, id)).photos).toHaveLength(1);
});

test('the paper card carries its QR code and is typed in afterwards', async ({ page }) => {
  test.setTimeout(180_000);
  await page.setViewportSize({ width: 1280, height: 800 });
  const id = await start(page.request, 'SV-0014', 'repaste');
  await page.goto(`/bench/${String(id)}/paper`);
  await expect(page.getByAltText(`QR code of job ${String(id)}`)).toHaveJSProperty('naturalWidth', 150);
  await expect(page.getByRole('cell', { name: '12 mm T30' })).toBeVisible();
  await page.getByRole('button', { name: 'Type in what was written' }).click();
  await typeRun(page, '22', '88');
  await page.getByRole('button', { name: 'Keep as the before-run' }).click();
  for (const grades of await page.locator('.grades').all()) await grades.locator('button').first().click();
  const all = page.getByRole('button', { name: /^all \d+$/ });
  // What has come out asks to go in again: until nothing asks any more.
  await expect(async () => {
    if ((await all.count()) > 0) await all.first().click();
    await expect(all).toHaveCount(0, { timeout: 300 });
  }).toPass();
  await page.getByRole('button', { name: 'All of them' }).click();
  await page.getByRole('button', { name: /^Keep \d+ steps/ }).click();
  await page.getByRole('button', { name: 'File the work as done' }).click({ timeout: 60_000 });
  await expect(page.getByRole('heading', { name: /Waiting for proof/ })).toBeVisible();
});

test('labels print with their codes, and a hand scanner opens the machine or the job in hand', async ({
  page,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/labels?asset=GC-0117&asset=GC-0110');
  await expect(page.locator('.label-sheet > div')).toHaveCount(2);
  await page.goto('/halls');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  // As fast as a scanner types, which a busy test machine is not.
  await page.evaluate(() => {
    for (const key of [...'GC-0117', 'Enter'])
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
  });
  await expect(page).toHaveURL(/machines\/GC-0117/);
  // What a scanner types is no key of the page: no dialog, no other place, no search.
  await page.goto('/');
  await expect(page.locator('.rounds-row').first()).toBeVisible();
  await page.evaluate(() => {
    for (const key of [...'pew-fn-2345', 'Enter'])
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
  });
  await page.waitForTimeout(300);
  expect(new URL(page.url()).pathname + new URL(page.url()).search).toBe('/');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByLabel('Find a machine')).not.toBeFocused();
  const id = await start(page.request, 'GC-0104', 'blow-out');
  await page.goto('/scan');
  await page.getByLabel('Label').fill('ZZ-1');
  await page.getByLabel('Label').press('Enter');
  await expect(page.getByText(/No machine carries/)).toBeVisible();
  await page.getByLabel('Label').fill('GC-0104');
  await page.getByLabel('Label').press('Enter');
  await expect(page).toHaveURL(new RegExp(`bench/${String(id)}$`));
});

test('notes on a model: a screw is placed on the plan and kept', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/models');
  await page.getByRole('link', { name: 'Petrel desktop' }).click();
  await page.getByRole('button', { name: 'Add a screw' }).click();
  await page.locator('.model-plan').click({ position: { x: 60, y: 60 } });
  await page.getByLabel('length, mm').fill('8');
  await page.getByRole('button', { name: 'Add a fan' }).click();
  await page.getByText('only with the cooler').click();
  await page.getByRole('button', { name: 'Keep these notes' }).click();
  await expect(page.getByText('Kept.')).toBeVisible();
  await page.reload();
  await expect(page.getByRole('img', { name: /Plan of Petrel desktop: screw 1, 8 mm/ })).toBeVisible();
  await page.goto('/bench/new?asset=DT-0031&level=fan-swap');
  await page.getByLabel('Fan').click();
  await expect(page.getByTitle(/only with the cooler/)).toBeVisible();
});

test('notes on a model: what was begun survives a reload, and nobody is overwritten unseen', async ({
  page,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/models');
  await page.getByRole('link', { name: 'Gannet field laptop' }).click();
  const screws = page.getByRole('img', { name: /Plan of Gannet field laptop/ });
  const before = (await screws.getAttribute('aria-label'))!;
  await page.getByRole('button', { name: 'Add a pad' }).click();
  await page.getByLabel('thickness, mm').fill('1.5');
  await page.getByRole('button', { name: 'Add a screw' }).click();
  await page
    .getByRole('group', { name: /^Screw/ })
    .getByRole('button', { name: 'Take it out' })
    .click();
  await page.reload();
  // The pad is still there as begun, the screw that was taken out is not.
  const begun = `${before}; pad 1, memory, 1.5 mm`;
  await expect(screws).toHaveAttribute('aria-label', begun);
  const answer = await page.request.get('/api/v1/models/notes?model=Gannet%20field%20laptop');
  const stored = (await answer.json()) as { notes: { traps: string[] }; version: number };
  const keep = await page.request.put('/api/v1/models/notes', {
    data: { notes: { ...stored.notes, traps: ['The lid cable is short.'] }, version: stored.version },
  });
  expect(keep.status()).toBe(200);
  await page.getByRole('button', { name: 'Keep these notes' }).click();
  // Nothing is lost: theirs are loaded, mine stay as begun, and both are named.
  await expect(page.getByText(/theirs differ in: pads, traps/)).toBeVisible();
  await expect(screws).toHaveAttribute('aria-label', begun);
  await page.getByRole('button', { name: 'Back to what is kept' }).click();
  await expect(screws).toHaveAttribute('aria-label', before);
  const now = await page.request.get('/api/v1/models/notes?model=Gannet%20field%20laptop');
  expect(((await now.json()) as typeof stored).notes.traps).toEqual(['The lid cable is short.']);
});

for (const [path, text] of [
  ['/log', /newest first/],
  ['/proof', /in the mean/],
  ['/stores', /On the shelf/],
  ['/stores/count', /By the book/],
  ['/stores/shopping', /to buy/],
  ['/stores/pad', /Which pad/],
  ['/stores/lots/1', /What came and went/],
  ['/bring?asset=GC-0117', /Off the shelf/],
  ['/models', /Sorrel card/],
  ['/labels?asset=GC-0117', /GC-0117/],
  ['/scan', /Scan a label/],
  ['/bench/1/proof', /Margin left/],
  ['/bench/6/paper', /Tray/],
  ['/bench/new?asset=DT-0003&level=repaste', /What is to be done/],
] as const)
  test(`accessible and no wider than a small phone: ${path}`, async ({ page }) => {
    await page.setViewportSize({ width: 360, height: 740 });
    await page.goto(path);
    await expect(page.getByText(text).first()).toBeVisible({ timeout: 30_000 });
    const found = await new AxeBuilder({ page })
      .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
      .analyze();
    expect(
      found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(' | ')}`),
    ).toEqual([]);
    if (!path.includes('labels'))
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
  });

test('a run typed with decimal commas is kept as it was meant', async ({ page }) => {
  const id = await start(page.request, 'LT-0019', 'dust-out');
  await page.goto(`/bench/${String(id)}`);
  await typeRun(page, '22,5', '71,5');
  await page.getByRole('button', { name: 'Keep as the before-run' }).click();
  const measured = async () => {
    const job = (await (await page.request.get(`/api/v1/jobs/${String(id)}`)).json()) as {
      runs: { run: { ambientCelsius: number; parts: { celsius: number }[] } }[];
    };
    return job.runs.map(({ run }) => [run.ambientCelsius, ...run.parts.map((p) => p.celsius)]);
  };
  await expect.poll(measured).toEqual([[22.5, 71.5, 71.5]]);
});
