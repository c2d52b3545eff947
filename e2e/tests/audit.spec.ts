import { expect, test } from '@playwright/test';
import { Server } from './server.js';

let server: Server;
test.beforeAll(async () => {
  server = await Server.start('audit', true);
});
test.afterAll(() => server.stop());

test('a change of the rules is found with what stood there before, checked, and taken along', async ({
  page,
}) => {
  await page.goto(`${server.url}/rules`);
  await page.getByLabel(/Less than this is not worth opening/).fill('3,5');
  await page.getByRole('button', { name: 'Keep these rules' }).click();
  await expect(page.getByText('Kept; the rounds follow at once.')).toBeVisible();
  await page.getByRole('link', { name: 'Audit log' }).click();
  await expect(page.getByRole('heading', { name: 'Who did what, when and from where.' })).toBeVisible();
  const row = page.getByRole('row').filter({ hasText: 'House rules changed' });
  await expect(row).toContainText('whoever was here');
  await expect(row).toContainText('127.0.0.1');
  await row.getByRole('button', { name: 'More' }).click();
  const before = page.getByRole('row').filter({ hasText: 'worth kelvin' }).last();
  await expect(before).toContainText('2.5');
  await expect(before).toContainText('3.5');

  await page.getByRole('button', { name: 'Check it now' }).click();
  await expect(page.getByText(/All \d+ lines are as they were written/)).toBeVisible();

  // Searched, and the address of the page says for what: it can be handed on.
  await page.getByRole('searchbox', { name: 'Search' }).fill('no such words anywhere');
  await page.getByRole('searchbox', { name: 'Search' }).press('Enter');
  await expect(page.getByText('Nothing found.')).toBeVisible();
  await page.goto(`${server.url}/rules/audit?kinds=rules,zone-times`);
  await expect(page.getByRole('row').filter({ hasText: 'House rules changed' })).toBeVisible();
  await expect(page.getByText('Planned anew')).toHaveCount(0);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'CSV' }).click();
  expect((await download).suggestedFilename()).toBe('audit-log.csv');

  await page.goto(`${server.url}/rules/backups`);
  const house = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Take everything along' }).click();
  expect((await house).suggestedFilename()).toMatch(/^pyrometron-\d{8}\.zip$/);
});
