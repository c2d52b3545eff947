import type { Page } from '@playwright/test';
import { expect, test } from './server.js';

// A planner who is new to it: two weeks planned, somebody ill, day sheets handed out.
test.use({ demo: true, file: 'weeks' });

const heading = (page: Page) => page.getByRole('heading', { level: 1 });

/** Plans again; ten seconds of thinking are nobody's wish here, and the best plan may be there before. */
async function planAgain(page: Page): Promise<void> {
  const inForce = async () => {
    const { plan, run } = (await (await page.request.get('/api/v1/weeks')).json()) as {
      plan: { id: number };
      run: object | null;
    };
    return run === null ? plan.id : 0;
  };
  const before = await inForce();
  await page.getByRole('button', { name: 'Plan again' }).click();
  await page
    .getByRole('button', { name: /^Stop, and take/ })
    .click({ timeout: 3000 })
    .catch(() => undefined);
  await expect.poll(inForce, { timeout: 30_000 }).toBeGreaterThan(before);
  await expect(page.getByText(/^Planning: /)).toBeHidden();
}

test('two weeks are planned, somebody falls ill, what moved says why, and day sheets lead to the bench', async ({
  page,
}) => {
  test.setTimeout(120_000);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/');
  await page.getByRole('link', { name: 'Weeks' }).click();
  await expect(heading(page)).toContainText(/jobs have a place/);
  await planAgain(page);

  // Ill on the first day on which Tomas has work.
  const sheet = page.getByRole('link', { name: 'Tomas' }).first();
  const day = (await sheet.getAttribute('href'))!.split('/').pop()!;
  await page.getByRole('link', { name: 'People and times' }).click();
  await page.getByRole('region', { name: 'Tomas' }).getByRole('button', { name: 'Away' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('From').fill(day);
  await dialog.getByLabel('Up to and with').fill(day);
  await dialog.getByLabel(/^Why/).fill('ill');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toBeHidden();
  await page.getByRole('link', { name: 'Weeks' }).first().click();
  await expect(page.getByRole('alert')).toContainText(/cannot stand where (it is|they are) any more/);
  await planAgain(page);
  await expect(page.getByRole('alert')).toBeHidden();
  await page.getByText(/another day or person than in the plan before/).click();
  await expect(page.getByText('Tomas has no shift that holds it.').first()).toBeVisible();

  // The sheet of the first day that has work, and from it to the bench.
  await page.locator('.weeks-who a').first().click();
  await expect(heading(page)).toContainText(/^(Mira|Tomas), /);
  await expect(page.getByText('What to bring')).toBeVisible();
  const start = page.getByRole('link', { name: 'Start at the bench' }).first();
  const tag = new URL((await start.getAttribute('href'))!, page.url()).searchParams.get('asset')!;
  await start.click();
  await expect(page).toHaveURL(/\/bench\/new/);
  await expect(page.locator('main')).toContainText(tag);
});

interface Place {
  id: string;
  person: string;
  day: string;
  from: number;
  steps: { asset: string }[];
}

/** A job of the plan, and by how many steps of five minutes it may stand later: which ones differ from plan to plan. */
async function movable(page: Page): Promise<{ job: Place; steps: number }> {
  const { plan } = (await (await page.request.get('/api/v1/weeks')).json()) as {
    plan: { id: number; jobs: Place[] };
  };
  for (const job of plan.jobs.filter((j) => j.steps.length === 1).reverse())
    for (let steps = 1; steps <= 6; steps++) {
      const asked = await page.request.post(`/api/v1/weeks/jobs/${job.id}/place`, {
        data: { seen: plan.id, person: job.person, day: job.day, from: job.from + 5 * steps, tryOnly: true },
      });
      if (((await asked.json()) as { conflict: object | null }).conflict === null) return { job, steps };
    }
  throw new Error('No job of this plan may stand later.');
}

test('a job is moved by keys with its conflicts told, kept, and the change taken back', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/weeks');
  await expect(heading(page)).toContainText(/jobs have a place/);
  const { job: free, steps } = await movable(page);
  const job = page.getByRole('button', { name: new RegExp(`^${free.steps[0]!.asset}, `) }).first();
  await job.click();
  const panel = page.getByRole('complementary');
  const name = (await panel.getByRole('heading').textContent())!;
  const stood = await panel.locator('p').first().textContent();

  // Before its day's first shift nobody is there.
  await job.focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('PageUp');
  for (let i = 0; i < 110; i++) await page.keyboard.press('ArrowLeft');
  await expect(panel.getByRole('status')).toContainText(/has no shift that holds it|may not begin|not open/);
  await page.keyboard.press('Enter');
  await expect(panel.getByRole('status')).toContainText('Held over');
  await page.keyboard.press('Escape');
  await expect(panel.getByRole('status')).toHaveCount(0);
  await expect(panel.locator('p').first()).toHaveText(stood!);

  // A little later it may stand.
  await job.focus();
  for (let i = 0; i < steps; i++) await page.keyboard.press('ArrowRight');
  await expect(panel.getByRole('status')).toContainText('Enter puts it there');
  await page.keyboard.press('Enter');
  await expect(page.getByText(`changed by hand`)).toContainText(name);
  await expect(panel).toContainText('It stays here when the plan is made again.');
  await page.getByRole('button', { name: 'Take back the last change' }).click();
  await expect(panel).toContainText('A new plan may move it.');
  await expect(panel.locator('p').first()).toHaveText(stood!);
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 360, height: 740 } });

  test('the plan is a list, and what is picked comes to the reader', async ({ page }) => {
    await page.goto('/weeks');
    await page.locator('.weeks-line').first().click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.getByRole('link', { name: /bench/ }).first()).toBeVisible();
    await dialog.getByRole('button', { name: 'Close' }).click();
    await page.getByRole('link', { name: 'Day sheet' }).first().click();
    await expect(page.getByText('What to bring')).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
  });
});

test('work for two stands with both of them, and the way between zones is the planner’s to say', async ({
  page,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/weeks');
  await expect(heading(page)).toContainText(/jobs have a place/);
  const { plan } = (await (await page.request.get('/api/v1/weeks')).json()) as {
    plan: { jobs: (Place & { help: { person: string; day: string } | null })[] };
  };
  const two = plan.jobs.find((j) => j.help !== null)!;
  const blocks = page.getByRole('button', { name: new RegExp(`^${two.id}, .*It takes two`) });
  await expect(blocks).toHaveCount(2);
  await blocks.last().click();
  const panel = page.getByRole('complementary');
  await expect(panel.getByText(/It takes two: with (Mira|Tomas)/)).toBeVisible();
  // Every figure opens to its making.
  await page.getByRole('button', { name: /^no plan is better|^costs at most|^costs less/ }).click();
  await expect(page.getByText('every plan at least')).toBeVisible();
  await page.keyboard.press('Escape');
  for (const person of [two.person, two.help!.person]) {
    await page.goto(`/weeks/sheet/${person}/${two.day}`);
    await expect(page.getByText(/It takes two: (with|helping) (Mira|Tomas)/).first()).toBeVisible();
  }
  await page.goto('/weeks/people');
  const way = page.getByRole('region', { name: 'The way between zones' });
  await expect(way).toContainText('5 min within a site');
  await way.getByRole('button', { name: 'Edit' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('From one site to another, minutes').fill('35');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(way).toContainText('35 min from one site to another');
});

test('a house without people is asked for them, and plans with what it is told', async ({ page }) => {
  await page.goto('/weeks/people');
  for (const name of ['Mira', 'Tomas']) {
    await page.getByRole('region', { name }).getByRole('button', { name: 'Remove' }).click();
    await page.getByRole('tooltip').getByRole('button', { name: 'Remove' }).click();
    await expect(page.getByRole('region', { name })).toHaveCount(0);
  }
  await page.goto('/weeks');
  await expect(heading(page)).toHaveText('Who works on your machines?');
  await page.getByRole('link', { name: 'Add people' }).click();
  await page.getByRole('button', { name: 'Add somebody' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('Ines Faro');
  await dialog.getByLabel('open laptops').check();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('region', { name: 'Ines Faro' })).toContainText('40 hours a week');
  await page.getByRole('link', { name: 'Weeks' }).first().click();
  await expect(page.getByRole('alert')).toContainText('cannot stand where they are any more');
  await planAgain(page);
  await expect(page.getByText(/Nobody has all the skills that it needs/).first()).toBeVisible();
});
