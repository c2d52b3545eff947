import { expect, type Page } from '@playwright/test';

const progress = (page: Page) => page.getByText(/^(Step \d+ of|All \d+ steps done)/);

/** Does the step on the screen as a person would: counts, grades, checks, waits for a timer, taps Done, sees the next one. */
export async function doStep(page: Page): Promise<void> {
  const before = (await progress(page).textContent())!;
  const bar = page.locator('.bench-bar');
  for (const box of await page.locator('.bench-gate input').all()) await box.check();
  await countSomething(page);
  const all = page.getByRole('button', { name: /^all \d+$/ });
  while ((await all.count()) > 0) {
    const left = await all.count();
    await all.first().click();
    await expect(all).toHaveCount(left - 1);
  }
  for (const grades of await page.locator('.grades').all()) {
    const second = grades.locator('button').first();
    await second.click();
    await expect(second).toHaveAttribute('aria-pressed', 'true');
  }
  const start = bar.getByRole('button', { name: /^Start / });
  const done = bar.getByRole('button', { name: 'Done', exact: true });
  if ((await start.count()) > 0) {
    await start.click();
    // The page's clock is turned on until the timer has rung: at most a few minutes, as much as the server believes.
    await expect(async () => {
      await page.clock.fastForward(10_000);
      await expect(done).toBeEnabled({ timeout: 250 });
    }).toPass();
  }
  await done.click({ timeout: 60_000 });
  await expect(progress(page)).not.toHaveText(before);
}

/** Where no notes list what comes out: one kind of screw, one lead. */
async function countSomething(page: Page): Promise<void> {
  for (const [tray, name] of [
    ['Screw tray', null],
    ['Connectors', 'fan lead'],
  ] as const) {
    const place = page.getByRole('region', { name: tray });
    if ((await place.count()) === 0 || (await place.getByRole('button', { name: /^One / }).count()) > 0)
      continue;
    const add = place.getByRole('button', { name: 'Add' });
    if ((await add.count()) === 0) continue;
    if (name) await place.getByLabel('Its name').fill(name);
    await add.click();
    await expect(place.getByRole('button', { name: /^One / }).first()).toBeVisible();
  }
}

/** Does what is left of the card. */
export async function doAllSteps(page: Page, until = 60): Promise<void> {
  for (let i = 0; i < until; i++) {
    if ((await progress(page).textContent())!.startsWith('All')) return;
    await doStep(page);
  }
}

/** Types a run in. */
export async function typeRun(page: Page, air: string, celsius: string): Promise<void> {
  await page.getByLabel('Air, °C').fill(air);
  const settled = page.getByLabel(/settled/);
  for (let i = 0; i < (await settled.count()); i++) await settled.nth(i).fill(celsius);
}
