import { AxeBuilder } from '@axe-core/playwright';
import { expect, test } from './server.js';

test.use({ demo: true });

const PLACES = [
  ['/', /of .* machines? needs? work/],
  ['/machines/GC-0117', /calculated/],
  ['/weeks', /jobs have a place/],
  ['/weeks/people', /When machines may be down/],
  ['/proof/report', /What work on cooling has won/],
  ['/rules/backups', /Make one now/],
  ['/rules/accounts', /What each role may/],
  ['/rules/audit', /lines, newest first/],
  ['/rules/housekeeping', /bill of materials/i],
  ['/rules/reference', /calls\./],
  ['/account', /There are no accounts here/],
  ['/phone', /No phone reaches this house/],
  ['/notices', /Shown to/],
  ['/notices/people', /Mails and calls/],
  ['/weeks/campaigns', /Dust out of the reading room/],
  ['/weeks/campaigns/1', /Still to do/],
  ['/weeks/campaigns/new?zone=BOAT', /at the bench/],
  ['/halls', /too warm/],
  ['/bench', /proof/],
  ['/bench/6', /measure it again/],
  ['/bench/1', /ooler than before/],
  ['/stores', /Every cut goes/],
  ['/stores/paste', /squeezed out/],
  ['/proof', /Predicted, and found on opening/],
  ['/intake', /Drop files/],
  ['/start', /What do you have/],
  ['/rules', /Keep these rules/],
  ['/nowhere', /There is no/],
] as const;

for (const [path, text] of PLACES)
  test(`accessible: ${path} by day and by night`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: 'light' });
    await page.goto(path);
    await expect(page.getByText(text).first()).toBeVisible({ timeout: 30_000 });
    for (const theme of ['light', 'dark'] as const) {
      await page.emulateMedia({ colorScheme: theme });
      await expect(page.locator('html')).toHaveCSS('color-scheme', theme);
      // Colours that are still on their way are nobody's contrast.
      await page.evaluate(() =>
        Promise.allSettled(
          document
            .getAnimations()
            .filter((a) => a.effect?.getTiming().iterations !== Infinity)
            .map((a) => a.finished),
        ),
      );
      const axe = new AxeBuilder({ page });
      // Nothing but colours differs by night.
      const found = await (
        theme === 'light'
          ? axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
          : axe.withRules(['color-contrast'])
      ).analyze();
      expect(
        found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(' | ')}`),
        theme,
      ).toEqual([]);
    }
  });

test('the demo shows every cause, a warm hall, a job that failed to help and one waiting for proof', async ({
  page,
}) => {
  await page.goto('/');
  await expect(page.getByText('Kelp hall, row D is')).toBeVisible({ timeout: 30_000 });
  const answer = (await (await page.request.get('/api/v1/queue?limit=all')).json()) as {
    items: { cause: string }[];
    total: number;
  };
  expect(answer.total).toBeGreaterThanOrEqual(150);
  expect(new Set(answer.items.map((i) => i.cause))).toEqual(
    new Set([
      'dust',
      'paste',
      'pads',
      'fan',
      'mount',
      'room',
      'settings',
      'sensor',
      'cooler-limited',
      'none',
    ]),
  );
  await page.goto('/bench');
  await expect(page.getByText(/no change/)).toBeVisible();
  await expect(
    page.getByRole('region', { name: 'Waiting for proof' }).getByRole('link', { name: /GC-0136/ }),
  ).toBeVisible();
});

test('the queue is walked, filtered and grouped from the keyboard', async ({ page }) => {
  // What chooses among the rows comes after them: who asks for it before it is there gets it when it is.
  let release = () => {};
  const held = new Promise<void>((resolve) => (release = resolve));
  await page.route(/\/Toolbar-[^/]*\.js$/, async (route) => {
    await held;
    await route.continue();
  });
  await page.goto('/');
  const current = page.locator('.rounds-row[aria-current=true] .figures').first();
  await expect(current).toBeVisible({ timeout: 30_000 });
  const first = await current.textContent();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(current).not.toHaveText(first!);
  await page.keyboard.press('f');
  await page.waitForTimeout(200);
  release();
  await expect(page.getByLabel('Find a machine')).toBeFocused();
  await page.keyboard.type('tern');
  await expect(page).toHaveURL(/q=tern/);
  await page.keyboard.press('Enter');
  await expect(page.locator('.rounds-row').first()).toContainText('Tern 2U server');
  await page.keyboard.press('p');
  await expect(page).toHaveURL(/by=zone/);
  await page.reload();
  await expect(page.locator('.rounds-group').first()).toContainText('Wave-model hall');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeHidden();
  await expect(async () => {
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/machines\/SV-/, { timeout: 1000 });
  }).toPass();
  await page.goBack();
  await expect(page).toHaveURL(/q=tern/);

  // A dialog gives the focus back to where it was opened from.
  const look = page.getByRole('button', { name: /look$/ });
  await look.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'On this device' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(look).toBeFocused();
});

test('a machine is set aside with a reason and put back', async ({ page }) => {
  await page.goto('/?q=GC-0155');
  await page.getByRole('button', { name: /Looked, nothing to do/ }).click({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Set aside', exact: true }).click();
  await expect(page.getByText('A word why')).toBeVisible();
  await page.getByLabel('What did you see?').fill('Fins clean, checked by torch.');
  await page.getByRole('button', { name: 'Set aside', exact: true }).click();
  await expect(page.locator('.rounds-row').first()).toContainText('Set aside until');
  await page.getByRole('button', { name: 'Put back into the queue' }).click();
  await expect(page.locator('.rounds-row').first()).not.toContainText('Set aside until');
});

test('a wrong reading and a wrong service are voided, struck through, and restored', async ({ page }) => {
  await page.goto('/machines/GC-0117');
  const readings = page.getByRole('region', { name: 'Readings' });
  await readings.getByRole('button', { name: 'Strike out' }).first().click();
  await page.getByLabel('Why?').fill('door was open');
  await page.getByRole('dialog').getByRole('button', { name: 'Strike out' }).click();
  await expect(readings.locator('tr.struck')).toHaveCount(1);
  await readings.getByRole('button', { name: 'Restore' }).click();
  await expect(readings.locator('tr.struck')).toHaveCount(0);
  const history = page.getByRole('region', { name: 'History' });
  await history.getByRole('button', { name: 'Strike out' }).first().click();
  await page.getByLabel('Why?').fill('was another card');
  await page.getByRole('dialog').getByRole('button', { name: 'Strike out' }).click();
  await expect(history.getByText('struck out: was another card')).toBeVisible();
  await history.getByRole('button', { name: 'Restore' }).click();
  await expect(history.getByText('struck out: was another card')).toHaveCount(0);
});

test('a machine is moved and its history says so; degrees can be Fahrenheit', async ({ page }) => {
  await page.goto('/machines/DT-0003');
  await page.getByRole('button', { name: 'Edit' }).click();
  await page.getByLabel('Hours a day under load').fill('11');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('region', { name: 'History' })).toContainText('hours a day: 9 → 11');
  await page.getByRole('button', { name: /look/ }).click();
  await page.getByText('°F', { exact: true }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('cell', { name: '203 °F' }).first()).toBeVisible();
  // A difference is one too, in what the server says and on every axis.
  await expect(page.getByText('°F above the air').first()).toBeVisible();
  // So is what is typed: a limit of 95 °C is 203 °F and comes back as it was.
  await page.getByRole('button', { name: 'Edit' }).click();
  await expect(page.getByLabel('Processor: limit, °F')).toHaveValue('203');
  await page.getByLabel('Processor: limit, °F').fill('194');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('cell', { name: '194 °F' }).first()).toBeVisible();
  await page.goto('/machines/GC-0117');
  await expect(page.getByText(/Memory alone is \d+ °F warmer/).first()).toBeVisible({ timeout: 30_000 });
});

test('the phone has the bench at full width', async ({ page }) => {
  await page.setViewportSize({ width: 360, height: 740 });
  await page.goto('/bench/6');
  await expect(page.getByText('measure it again')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
});

test('halls tell where trouble is, and the floor of a zone is drawn by keys and kept', async ({ page }) => {
  await page.goto('/halls?zone=MACH');
  await expect(page.getByRole('heading', { name: 'Kelp hall, row D is too warm as a whole.' })).toBeVisible({
    timeout: 30_000,
  });
  // A healthy machine is quiet, one that has lost something says how much.
  await expect(page.locator('.hall-cell', { hasText: 'SV-0027' })).not.toHaveClass(/lost/);
  await expect(page.locator('.hall-cell', { hasText: 'SV-0030' })).toHaveClass(/lost/);
  await page.getByRole('button', { name: 'Only those with something' }).click();
  await expect(page.locator('.hall-cell', { hasText: 'SV-0027' })).toHaveCount(0);
  await page.getByRole('button', { name: 'All machines' }).click();
  await expect(page.getByRole('slider', { name: 'Air of Machine room' })).toBeVisible();

  await page.getByRole('button', { name: 'Draw the floor' }).click();
  const floor = page.getByRole('region', { name: 'The floor of Machine room' });
  await floor.getByRole('button', { name: 'Put all in rows' }).click();
  const last = floor.getByRole('button', { name: /^SV-0036,/ });
  await last.focus();
  await page.keyboard.press('ArrowDown');
  await expect(floor.getByRole('button', { name: 'SV-0036, column 10, row 2' })).toBeFocused();
  await floor.getByRole('button', { name: 'Keep the plan' }).click();
  await expect(floor).toBeHidden();
  await expect(page.locator('.hall-plan .hall-cell')).toHaveCount(10);
  const fleet = (await (await page.request.get('/api/v1/fleet')).json()) as {
    assets: { tag: string; place?: { column: number; row: number } }[];
  };
  expect(fleet.assets.find((a) => a.tag === 'SV-0036')?.place).toEqual({ column: 9, row: 1 });
  // As a list, by the order in which one walks.
  await page.getByText('as a list').click();
  await expect(page.getByRole('row', { name: /SV-0036/ })).toBeVisible();
});
