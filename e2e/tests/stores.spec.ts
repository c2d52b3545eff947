import type { APIRequestContext, Page } from '@playwright/test';
import { expect, test } from './server.js';

// The shelf of a house that does not know it: what is there, what is missing, cut, counted, bought, taken to the bench.
test.use({ demo: true, file: 'stores' });

const heading = (page: Page) => page.getByRole('heading', { level: 1 });

const left = async (request: APIRequestContext, lot: number): Promise<number> =>
  ((await (await request.get(`/api/v1/stores/lots/${String(lot)}`)).json()) as { lot: { amount: number } })
    .lot.amount;

// Two cards whose pads are known are taken to the bench, so that pads are asked for whatever the plan of the day holds.
const repadding = async (request: APIRequestContext): Promise<void> => {
  for (const asset of ['GC-0117', 'GC-0128'])
    await request.post('/api/v1/jobs', { data: { asset, level: 'repad' } });
};

test('the shelf says for how many jobs it is enough, and what comes in changes that', async ({ page }) => {
  await repadding(page.request);
  await page.goto('/');
  await page.getByRole('link', { name: 'Stores', exact: true }).click();
  await expect(heading(page)).toContainText(/Enough for \d+ of the next \d+ jobs/);
  const shelf = page.getByRole('region', { name: 'On the shelf' });
  await expect(shelf.getByText('Kelpmat 13, 2.0 mm')).toBeVisible();
  await expect(shelf.getByText(/expired on/)).toBeVisible();

  // A sheet and a tube that have come, typed with a decimal comma.
  await page.getByRole('button', { name: 'Something came in …' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('What it is').fill('Hemlock');
  await page.keyboard.press('Enter');
  await dialog.getByLabel('How much, g').fill('3,5');
  await dialog.getByLabel('Batch, where it has one').fill('H-9');
  await dialog.getByLabel('Where it stands').fill('drawer 7');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toBeHidden();
  await expect(shelf.getByText(/drawer 7 · 3\.5 g/)).toBeVisible();

  // Without a place it is not taken, and nothing typed is lost.
  await page.getByRole('button', { name: 'Something came in …' }).click();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog.getByText('A place is needed.')).toBeVisible();
  await page.keyboard.press('Escape');

  // A product that has lots stays; one that has none goes.
  const takeOff = async (product: string) => {
    await shelf.getByRole('button', { name: product }).first().click();
    await dialog.getByRole('button', { name: 'Take it off the list' }).click();
    await page.getByRole('button', { name: 'Take it off', exact: true }).click();
  };
  await takeOff('Hemlock 8');
  await expect(dialog.getByText(/has lots, which tell what went into machines/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
  await page.getByRole('button', { name: 'New product …' }).click();
  await dialog.getByLabel('Name on its label').fill('Reed 5');
  await dialog.getByLabel('In a pack, g').fill('4');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toBeHidden();
  await takeOff('Reed 5');
  await expect(dialog).toBeHidden();
  await expect(shelf.getByText('Reed 5')).toBeHidden();

  await page.getByRole('link', { name: /^Shopping list/ }).click();
  await expect(page.getByRole('cell', { name: /2\.0 mm/ }).first()).toBeVisible();
  const csv = await page.request.get('/api/v1/stores/shopping.csv');
  expect(await csv.text()).toContain('pads,2,');
});

test('pads are cut ahead and booked, and a lot is counted and found bad', async ({ page }) => {
  await repadding(page.request);
  await page.goto('/stores');
  const cutting = page.getByRole('region', { name: 'Cutting' });
  await expect(cutting.getByRole('img').first()).toBeVisible();
  await page.getByRole('link', { name: 'Print 1 : 1' }).click();
  await expect(page.getByText('Print at 100 %')).toBeVisible();
  // On paper as large as in the hand: 96 px an inch.
  const wide = await page
    .locator('.stores-paper svg')
    .first()
    .evaluate((svg) => svg.getBoundingClientRect().width);
  expect(wide / 96).toBeCloseTo((120 + 12) / 25.4, 1);
  await page.goBack();
  await cutting.getByRole('button', { name: 'Cut: book it' }).click();
  await expect(cutting.getByText(/Pads lie ready for .*GC-0117/)).toBeVisible();

  await page.goto('/stores/lots/1');
  await page.getByLabel('Counted, g').fill('6,4');
  await page.getByRole('button', { name: 'Take it over' }).click();
  await expect(heading(page)).toContainText('6.4 g');
  await page.getByRole('button', { name: 'Throw away …' }).click();
  const away = page.getByRole('dialog');
  await away.getByLabel('How much, g').fill('0,4');
  await away.getByRole('button', { name: 'Save' }).click();
  await expect(away.getByText('A reason is needed.')).toBeVisible();
  await away.getByLabel('Why?').fill('dried at the tip');
  await away.getByRole('button', { name: 'Save' }).click();
  await expect(heading(page)).toContainText('6 g');
  await expect(page.getByText('dried at the tip')).toBeVisible();
  await page.getByRole('button', { name: 'It is bad …' }).click();
  await page.getByRole('dialog').getByRole('textbox').fill('lumps in it');
  await page.getByRole('button', { name: 'Do not use it any more' }).click();
  await expect(page.getByText('not to be used: lumps in it')).toBeVisible();
  await expect(page.getByRole('heading', { name: /went into 2 machines/ })).toBeVisible();
  await expect(page.getByRole('link', { name: 'GC-0102' })).toBeVisible();
});

test('on the phone: counted lot by lot, the pad for a gap, what a job takes with lot and place', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/stores/count');
  await expect(page.getByText('1 of')).toBeVisible();
  await page.getByRole('button', { name: /is right$/ }).click();
  await expect(page.getByText(/^2 of/)).toBeVisible();
  await page.getByLabel(/^Counted, /).fill('1,5');
  await page.getByRole('button', { name: 'Take it over' }).click();
  await expect(page.getByText(/^3 of/)).toBeVisible();

  await page.goto('/stores/pad');
  await page.getByLabel('Place 1: measured, mm').fill('1,2');
  await expect(page.getByRole('heading', { name: /memory: 1\.5 mm/ })).toBeVisible();

  const started = await page.request.post('/api/v1/jobs', { data: { asset: 'DT-0031', level: 'repaste' } });
  expect(started.status()).toBe(201);
  const { id, version } = (await started.json()) as { id: number; version: number };
  await page.goto(`/bench/${String(id)}`);
  const taken = page.getByRole('region', { name: 'From the stores' });
  await expect(taken.getByText(/g lot 2, batch A-0907, drawer 2/)).toBeVisible();
  const before = await left(page.request, 2);
  await page.request.post(`/api/v1/jobs/${String(id)}/entries`, {
    data: { key: crypto.randomUUID(), version, entry: { kind: 'given-up', reason: 'tried' } },
  });
  await page.reload();
  await expect(taken).toBeHidden();
  expect(await left(page.request, 2)).toBe(before);
});

test('paste for a chip: cautions, kelvins at the machine’s own power, and how it spreads', async ({
  page,
}) => {
  await page.goto('/stores/paste');
  await page.getByLabel('Paste', { exact: true }).click();
  await page.getByText('Sedge metal').click();
  await page.getByLabel('Machine', { exact: true }).fill('GC-0117');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/Not here:/)).toContainText('contacts lie open');
  await expect(page.getByText(/At the machine’s own \d+ W/)).toBeVisible();
  await expect(page.getByText(/^After 0/)).toContainText('covered');
  await page.getByRole('button', { name: 'Press it down' }).click();
  await expect(page.getByText(/9\d % covered|100 % covered/)).toBeVisible({ timeout: 15_000 });
});
