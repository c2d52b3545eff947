import { expect, test } from './server.js';

// A backup made, looked at, laid back by starting again.
test.use({ demo: true, file: 'backups' });

test('what was done since a backup is gone once it is laid back', async ({ page, server }) => {
  const heading = page.getByRole('heading', { level: 1 });
  await page.goto('/rules');
  await page.getByRole('link', { name: 'Backups' }).click();
  await expect(heading).toHaveText('There is no backup yet.');
  await page.getByRole('button', { name: 'Make one now' }).click();
  await expect(heading).toHaveText(/^The last backup is of /);
  const row = page.getByRole('row', { name: /206 machines, .* readings, 8 jobs, 8 photos found whole/ });
  await expect(row).toBeVisible();

  await fetch(`${server.url}/api/v1/people/jana`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name: 'Jana', skills: [], sites: [], hours: [] }),
  });
  await page.goto('/weeks/people');
  await expect(page.getByRole('heading', { name: 'Jana' })).toBeVisible();

  await page.goto('/rules/backups');
  await row.getByRole('button', { name: 'Lay back …' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('row', { name: 'jobs 8 8' })).toBeVisible();
  await dialog.getByRole('button', { name: 'At the next start' }).click();
  await expect(page.getByText(/is laid back when the program starts next/)).toBeVisible();
  await page.getByRole('button', { name: 'Do not lay it back' }).click();
  await expect(page.getByText(/is laid back when the program starts next/)).toBeHidden();
  await row.getByRole('button', { name: 'Lay back …' }).click();
  await dialog.getByRole('button', { name: 'At the next start' }).click();
  await expect(page.getByText(/is laid back when the program starts next/)).toBeVisible();

  await server.kill();
  await server.launch();
  await page.goto('/weeks/people');
  await expect(page.getByRole('heading', { name: 'Mira' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Jana' })).toBeHidden();
});
