import { tickAll } from './bench-calls.js';
import { doAllSteps, typeRun } from './bench-walk.js';
import { expect, test, trial } from './server.js';

test.use({ demo: false, file: 'first-day' });

test.describe.serial('a technician’s first day', () => {
  test('an empty house teaches what to do', async ({ page }) => {
    await page.goto('/');
    await expect(page.getByRole('heading', { name: /^No machines yet/ })).toBeVisible();
    await page.goto('/proof');
    await expect(page.getByRole('heading', { name: 'No work is filed in these days.' })).toBeVisible();
    await page.goto('/');
    await page.getByRole('button', { name: 'Bring in files' }).click();
    await expect(page).toHaveTitle('Intake · Pyrometron');
  });

  test('a broken file is refused in words and changes nothing', async ({ page }) => {
    await page.goto('/intake');
    await page.locator('input[type=file]').setInputFiles([
      {
        name: 'fleet.json',
        mimeType: 'application/json',
        buffer: Buffer.from('{"format":"pyrometron-fleet/1","sites":[],"assets":[{"tag":"X"}]}'),
      },
      { name: 'cat.csv', mimeType: 'text/csv', buffer: Buffer.from('meow') },
    ]);
    await expect(page.getByRole('alert').filter({ hasText: '/assets/0/model' })).toBeVisible();
    await expect(page.getByText('This is neither a fleet document')).toBeVisible();
    await page.goto('/');
    await expect(page.getByRole('heading', { name: /^No machines yet/ })).toBeVisible();
  });

  test('a fleet and a year of readings come in together', async ({ page }) => {
    await page.goto('/intake');
    await page
      .locator('input[type=file]')
      .setInputFiles([
        trial('practice-1/readings.csv.gz'),
        trial('practice-1/services.csv'),
        trial('practice-1/fleet.json'),
      ]);
    await expect(page.getByText('160 machines new', { exact: true })).toBeVisible();
    await expect(page.getByText('128,226 lines imported')).toBeVisible({ timeout: 60_000 });
  });

  test('bad lines are listed and can be downloaded', async ({ page }) => {
    await page.goto('/intake');
    await page.locator('input[type=file]').setInputFiles({
      name: 'more.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(
        'time,asset,core_c\n2025-09-25T20:00Z,GC-0001,70\n2025-09-25T21:00Z,GC-0001,hot\n2025-09-25T22:00Z,NOBODY,70\n',
      ),
    });
    await expect(page.getByText('1 line imported')).toBeVisible();
    await expect(page.getByRole('cell', { name: /NOBODY/ })).toBeVisible();
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: /Download the refused lines \(2\)/ }).click();
    expect((await download).suggestedFilename()).toBe('more-refused.csv');
  });

  test('an import is taken back as a whole', async ({ page }) => {
    await page.goto('/intake');
    await page.locator('input[type=file]').setInputFiles({
      name: 'wrong.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('date,asset,level\n2025-08-01,GC-0001,repad\n2025-08-01,GC-0002,repad\n'),
    });
    const row = page.getByRole('row').filter({ hasText: 'Services: 2 lines' });
    await row.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('button', { name: 'Undo it' }).click();
    await expect(row).toContainText('undone');
    // What stands under other imports stays, and says so.
    await page
      .getByRole('row')
      .filter({ hasText: 'Fleet document' })
      .getByRole('button', { name: 'Undo' })
      .click();
    await page.getByRole('button', { name: 'Undo it' }).click();
    await expect(page.getByText('has readings')).toBeVisible();
  });

  test('from the queue to the machine, the bench, the verdict, and back', async ({ page }) => {
    await page.goto('/');
    await expect(page.getByRole('heading', { name: /machines need work/ })).toBeVisible({
      timeout: 60_000,
    });
    const row = page.locator('.rounds-row').first();
    const tag = (await row.locator('.figures').first().textContent())!.trim();
    await row.click();
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(new RegExp(`/machines/${tag}$`));
    await expect(page.getByRole('heading', { name: 'Heat path' })).toBeVisible();
    await expect(page.getByText('How this was calculated')).toBeVisible();

    await page.getByRole('button', { name: /^Start / }).click();
    await expect(page.getByRole('heading', { name: 'Measure before you open it.' })).toBeVisible();
    await typeRun(page, '25', '92');
    await page.getByRole('button', { name: 'Keep as the before-run' }).click();

    const file = page.getByRole('button', { name: 'File the work as done' });
    await doAllSteps(page, 3);
    // The rest of the card is walked elsewhere (bench.spec.ts, economy.spec.ts).
    await tickAll(page.request, Number(new URL(page.url()).pathname.split('/').at(-1)));
    await page.reload();
    await file.click();

    await expect(page.getByRole('heading', { name: 'Waiting for proof: measure it again.' })).toBeVisible();
    await page.goto('/bench');
    await expect(page.getByRole('region', { name: 'Waiting for proof' })).toContainText(tag);
    await page.getByRole('region', { name: 'Waiting for proof' }).getByRole('link').first().click();
    await typeRun(page, '27', '84');
    await page.getByLabel('Minutes under load').fill('12');
    await expect(page.getByText('The first run lasted 20 minutes.')).toBeVisible();
    await page.getByLabel('Minutes under load').fill('20');
    await page.getByRole('button', { name: 'Keep as the after-run' }).click();
    await expect(page.getByRole('heading', { name: /^Cooler than before/ })).toBeVisible();
    await expect(page.getByText('−10 K ± 3.3 K').first()).toBeVisible();
    await page.getByRole('button', { name: 'File this verdict' }).click();
    await page.getByRole('link', { name: 'Rounds', exact: true }).click();
    await expect(page.getByRole('heading', { name: /need work|needs work/ })).toBeVisible();
    await expect(page.locator('.rounds-row').first()).not.toContainText(tag);

    await page.goto(`/machines/${tag}`);
    await expect(page.getByRole('region', { name: 'History' })).toContainText('improved');
  });
});
