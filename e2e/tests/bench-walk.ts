import { expect, type Page } from '@playwright/test';

const progress = (page: Page) => page.getByText(/^(Step \d+( to \d+)? of|All \d+ steps done)/);

/** Does the screen of the card as a person would: counts, grades, checks, waits for a timer, taps the tick, sees the next one. */
export async function doStep(page: Page): Promise<void> {
  const before = (await progress(page).textContent())!;
  const primary = page.locator('.bench-bar .ant-btn-primary');
  const grades = page.locator('.grades');
  const open = page.locator('.bench-gate input:not(:checked)');
  await countSomething(page);
  const label = (await primary.textContent())!;
  // Three kinds of step tick themselves: a timer that rang, a single grade, the last of what is confirmed one by one.
  let ticksItself = false;
  if (/^Start /.test(label)) {
    ticksItself = (await open.count()) === 0;
    await primary.click();
    await expect(primary).toHaveText(/^Wait /);
    // The page's clock is turned on until the timer has rung: at most a few minutes, as much as the server believes.
    await expect(async () => {
      await page.clock.fastForward(10_000);
      await expect(primary).not.toHaveText(/^Wait /, { timeout: 250 });
    }).toPass();
  }
  if (!ticksItself && /to confirm$/.test((await primary.textContent()) ?? '')) {
    ticksItself = true;
    for (let left = await open.count(); left > 0; left--) {
      await open.first().click();
      if (left > 1) await expect(open).toHaveCount(left - 1);
    }
  } else if (!ticksItself && (await grades.count()) > 0) {
    ticksItself = (await grades.count()) === 1;
    for (const one of await grades.all()) {
      const first = one.locator('button').first();
      await first.click();
      if (!ticksItself) await expect(first).toHaveAttribute('aria-pressed', 'true');
    }
  }
  if (!ticksItself) await primary.click({ timeout: 60_000 });
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

/** Opens a job’s machine without a run before. */
export async function withoutBefore(page: Page, id: number): Promise<void> {
  await page.goto(`/bench/${String(id)}`);
  await page.getByRole('button', { name: 'It cannot be measured …' }).click();
  await page.getByLabel('Why?').fill('does not start');
  await page.getByRole('button', { name: 'Open it', exact: true }).click();
  await expect(page.getByText(/^Step 1 (of|to)/)).toBeVisible();
}
