import type { Locator, Page } from '@playwright/test';
import { expect, test } from './server.js';

// A dust-out takes at most 20 taps besides typing, by keyboard at most 120 keys: hands are dirty, and the bench is full.

test.use({ demo: true, viewport: { width: 390, height: 844 } });

const MOST_TAPS = 20;
const MOST_KEYS = 120;

const primary = (page: Page) => page.locator('.bench-bar .ant-btn-primary');

async function startDustOut(page: Page, asset: string): Promise<void> {
  const answer = await page.request.post('/api/v1/jobs', {
    data: { asset, level: 'dust-out', warrantyAnswer: 'The seller agreed by letter.', by: 'Mira' },
  });
  expect(answer.status()).toBe(201);
  await page.addInitScript(() => localStorage.setItem('pyrometron.name', 'Mira'));
  await page.goto(`/bench/${String(((await answer.json()) as { id: number }).id)}`);
}

/** One screen of the card done with as few gestures as it takes; returns false when all steps are done. */
async function goOn(page: Page, gesture: (target: Locator) => Promise<void>): Promise<boolean> {
  const progress = page.getByText(/^(Step \d+( to \d+)? of|All \d+ steps done)/);
  const before = (await progress.textContent())!;
  if (before.startsWith('All')) return false;
  const label = (await primary(page).textContent())!;
  const grades = page.locator('.grades');
  if (/to confirm$/.test(label)) {
    const open = page.locator('.bench-gate input:not(:checked)');
    for (let left = await open.count(); left > 0; left--) {
      await gesture(open.first());
      if (left > 1) await expect(open).toHaveCount(left - 1);
    }
  } else if (/^Start /.test(label)) {
    await gesture(primary(page));
    await expect(primary(page)).toHaveText(/^Wait /);
    await expect(async () => {
      await page.clock.fastForward(5_000);
      await expect(progress).not.toHaveText(before, { timeout: 250 });
    }).toPass();
  } else if ((await grades.count()) === 1) {
    await gesture(grades.locator('button').first());
  } else {
    if ((await grades.count()) > 1) {
      const third = grades.first().locator('button').nth(2);
      await gesture(third);
      await expect(third).toHaveAttribute('aria-pressed', 'true');
    }
    // Of a model without notes what comes out is counted: one tap a length.
    if (await primary(page).isDisabled())
      await gesture(page.getByRole('button', { name: 'Add', exact: true }));
    await expect(primary(page)).toBeEnabled();
    await gesture(primary(page));
  }
  await expect(progress).not.toHaveText(before);
  return true;
}

test(`a dust-out by phone takes at most ${String(MOST_TAPS)} taps besides typing`, async ({ page }) => {
  test.setTimeout(120_000);
  await startDustOut(page, 'LT-0021');
  let taps = 0;
  const tap = async (target: Locator) => {
    taps++;
    await target.click();
  };
  const type = async (celsius: string) => {
    await page.getByLabel('Air, °C').fill('24');
    for (const field of await page.getByLabel(/settled/).all()) await field.fill(celsius);
  };
  await type('91');
  await tap(page.getByRole('button', { name: 'Keep as the before-run' }));
  await expect(page.getByText(/^Step 1/)).toBeVisible();
  while (await goOn(page, tap));
  await tap(page.getByRole('button', { name: 'File the work as done' }));
  await type('80');
  await tap(page.getByRole('button', { name: 'Keep as the after-run' }));
  await tap(page.getByRole('button', { name: 'File this verdict' }));
  await expect(page.getByRole('link', { name: 'The proof sheet for its owner' })).toBeVisible();
  test.info().annotations.push({ type: 'taps', description: String(taps) });
  expect(taps).toBeLessThanOrEqual(MOST_TAPS);
});

test(`from Rounds to a filed dust-out by keyboard alone, at the bench at most ${String(MOST_KEYS)} keys`, async ({
  page,
}) => {
  test.setTimeout(120_000);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.addInitScript(() => localStorage.setItem('pyrometron.name', 'Mira'));
  let keys = 0;
  const press = async (key: string) => {
    keys++;
    await page.keyboard.press(key);
  };
  /** On to a control by Tab, as far as it is away. */
  const reach = async (target: Locator) => {
    const walks = await target.evaluate((e) => e.closest('.grades') !== null);
    for (let i = 0; i < 30; i++) {
      if (await target.evaluate((e) => e === document.activeElement)) return;
      await press(walks ? 'ArrowRight' : 'Tab');
    }
    throw new Error(`30 tabs did not reach ${String(target)}`);
  };
  const push = async (target: Locator) => {
    await reach(target);
    await press((await target.getAttribute('type')) === 'checkbox' ? 'Space' : 'Enter');
  };
  const type = async (celsius: string) => {
    for (const [field, text] of [
      [page.getByLabel('Air, °C'), '24'],
      ...(await page.getByLabel(/settled/).all()).map((f): [Locator, string] => [f, celsius]),
    ] as [Locator, string][]) {
      await reach(field);
      for (const letter of text) await press(letter);
    }
    await press('Enter');
  };
  await page.goto('/');
  await expect(page.getByRole('heading', { name: /need work/ })).toBeVisible();
  await press('f');
  await expect(page.getByLabel('Find a machine')).toBeFocused();
  await page.keyboard.type('DT-0007');
  await expect(page.locator('.rounds-row')).toHaveCount(1);
  await press('Enter');
  await press('Enter');
  await expect(page).toHaveURL(/DT-0007$/);
  await push(page.getByRole('button', { name: 'Start dust-out' }));
  await expect(page.getByRole('button', { name: 'Keep as the before-run' })).toBeVisible();
  keys = 0;
  await type('91');
  // What comes next is said to who does not see the page change.
  await expect(page.getByRole('status').filter({ hasText: /^Step 1/ })).toBeVisible();
  while (await goOn(page, push));
  await push(page.getByRole('button', { name: 'File the work as done' }));
  await expect(page.getByRole('button', { name: 'Keep as the after-run' })).toBeVisible();
  await type('80');
  await push(page.getByRole('button', { name: 'File this verdict' }));
  await expect(page.getByRole('link', { name: 'The proof sheet for its owner' })).toBeVisible();
  test.info().annotations.push({ type: 'keys', description: String(keys) });
  expect(keys).toBeLessThanOrEqual(MOST_KEYS);
});
