import type { Page } from '@playwright/test';
import { expect, test } from './server.js';

// What is new: seen once, shown to whom it concerns, sent to the stand-ins.

const heading = (page: Page) => page.getByRole('heading', { level: 1 });

test.use({ demo: true, file: 'notices' });

test('what is new is counted until it was seen', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: /^New: \d+$/ }).click();
  await expect(heading(page)).toHaveText(/^\d+ things are new\.$/);
  const laptop = page.getByRole('listitem').filter({ hasText: 'LT-0012 needs work now' });
  await expect(laptop.getByText('new', { exact: true })).toBeVisible();
  await expect(page.getByRole('link', { name: 'What is new' })).toBeVisible();
  await laptop.getByRole('link', { name: 'Open LT-0012' }).click();
  await expect(heading(page)).toContainText('LT-0012');
  await page.goBack();
  await expect(heading(page)).toHaveText('Nothing new since you looked last.');
});

test('a reader is shown what they chose', async ({ page }) => {
  await page.goto('/notices/people');
  const tomas = page.getByRole('region', { name: 'Tomas' });
  await tomas.getByRole('button', { name: 'Edit' }).click();
  const dialog = page.getByRole('dialog');
  const shown = dialog.getByRole('group', { name: 'In the program' }).or(dialog.locator('#shown'));
  for (const kind of ['needs work now', 'is next', 'not on the shelf'])
    await shown.first().getByLabel(kind).uncheck();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toBeHidden();
  await expect(tomas.getByText(/^in the program: due this week or overdue, /)).toBeVisible();
  await page.goto('/notices');
  await expect(page.getByText('LT-0012 needs work now')).toBeVisible();
  await page.getByLabel('Shown to').click();
  await page.getByTitle('Tomas', { exact: true }).click();
  await expect(page.getByText('LT-0012 needs work now')).toBeHidden();
  await expect(page.getByRole('heading', { name: 'due this week or overdue' })).toBeVisible();
});

test('mails and calls are tried out, and a secret is shown once', async ({ page }) => {
  await page.goto('/notices/people');
  const mira = page.getByRole('region', { name: 'Mira' });
  await mira.getByRole('button', { name: 'Try the mail' }).click();
  await expect(page.getByRole('row', { name: /Mira a mail to try it sent/ })).toBeVisible();
  await expect(page.getByLabel('A mail').getByText(/This is a test that somebody asked for/)).toBeVisible();
  const tomas = page.getByRole('region', { name: 'Tomas' });
  await tomas.getByRole('button', { name: 'New secret' }).click();
  const dialog = page.getByRole('dialog', { name: 'The secret' });
  await expect(dialog.getByText(/^whsec_/)).toBeVisible();
  await dialog.getByRole('button', { name: 'I have copied it' }).click();
  await tomas.getByRole('button', { name: 'Try the call' }).click();
  await expect(page.getByRole('row', { name: /Tomas a call to try it sent/ })).toBeVisible();
  await expect(page.getByLabel('A call').getByText(/"type":"test"/)).toBeVisible();
});

test('times that contradict one another are refused with the reason', async ({ page }) => {
  await page.goto('/notices/people');
  await page.getByRole('region', { name: 'Mira' }).getByRole('button', { name: 'Edit' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Once a day at').fill('05:00');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog.getByText(/within the quiet hours/)).toBeVisible();
  await dialog.getByLabel('Once a day at').fill('06:30');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/by mail to mira@institute.invalid at 06:30/)).toBeVisible();
});

test('a house of one’s own has nobody to tell, no mail server, and says so', async ({ page }) => {
  const none = { watchedSince: null, today: '2026-12-01', days: 14, notices: [] };
  await page.route('**/api/v1/notices', (route) => route.fulfill({ json: none }));
  const nobody = { people: [], mailServer: null, standIns: false };
  await page.route('**/api/v1/notices/people', (route) => route.fulfill({ json: nobody }));
  await page.goto('/notices');
  await expect(heading(page)).toHaveText('Nothing was judged yet.');
  await page.getByRole('link', { name: 'Who is told, and how' }).click();
  await expect(page.getByText('Nobody is on the list yet.')).toBeVisible();
  await expect(page.getByText(/^No mail server is set/)).toBeVisible();
});
