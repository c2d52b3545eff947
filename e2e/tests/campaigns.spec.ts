import type { Page } from '@playwright/test';
import { expect, test } from './server.js';

// Many machines alike as one: the one of the demo whose pilot is done, and one that is thought of, begun, paused, ended.
test.use({ demo: true, file: 'campaigns' });

const heading = (page: Page) => page.getByRole('heading', { level: 1 });

test('the demo’s campaign tells what its pilot proved and what comes next', async ({ page }) => {
  await page.goto('/weeks');
  await page.getByRole('link', { name: 'Campaigns' }).click();
  await expect(heading(page)).toHaveText('1 campaign is not ended.');
  await page.getByRole('link', { name: 'Dust out of the reading room' }).click();
  await expect(heading(page)).toContainText('3 of 8 machines done');
  await expect(page.getByText(/Not decided yet: 3 machines more at a time/)).toBeVisible();
  await expect(page.getByText(/^Won .* in the mean of 3 compared/)).toBeVisible();
  await expect(page.getByRole('img', { name: /% of the way to going on/ })).toBeVisible();
  await expect(page.getByText(/at most 5 of 100 campaigns/)).toBeVisible();
  await expect(page.getByText(/^Still to do: 5 machines/)).toBeVisible();
  const machines = page.getByRole('region', { name: 'Machines' });
  await expect(machines.getByRole('row', { name: /DT-0019.*done/ })).toBeVisible();
  await expect(machines.getByRole('row', { name: /waits/ })).toHaveCount(2);

  // The machine says that it is in it.
  await machines.getByRole('link', { name: 'DT-0027' }).click();
  await expect(page.getByText('Campaign: Dust out of the reading room dust-out, waits')).toBeVisible();
  await page.goBack();

  await page.getByRole('link', { name: 'What to bring' }).click();
  await expect(page.getByText('DT-0011').first()).toBeVisible();
  await page.goBack();

  // Going on before the proof says so asks who decides it.
  await page.getByRole('button', { name: 'Go on with all …' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Who decides it').fill('');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog.getByText('A name is needed.')).toBeVisible();
  await dialog.getByLabel('Who decides it').fill('Mira');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/Mira decided that before the proof did/)).toBeVisible();
  await expect(machines.getByRole('row', { name: /waits/ })).toHaveCount(0);
});

test('a campaign is thought of, begun, planned around, paused and ended', async ({ page }) => {
  await page.goto('/weeks/campaigns/new');
  await expect(page.getByText(/Choose a model or a zone/)).toBeVisible();
  await page.getByLabel('What it is called').fill('Paste of the boats');
  await page.getByLabel('What is done').click();
  await page.getByTitle('repaste', { exact: true }).click();
  await page.getByLabel('Model', { exact: true }).fill('Gannet');
  await page.getByTitle('Gannet field laptop').click();
  const takes = page.getByRole('region', { name: 'What it takes' });
  await expect(takes.getByText(/^\d+ machines: .* at the bench/)).toBeVisible();
  await expect(takes.getByText(/^By the judgement it wins .* less than makes it worth it\.$/)).toBeVisible();
  await page.getByLabel('Worth it from, K').fill('2,5');
  await page.getByLabel('Done first').fill('4');
  await expect(takes.getByRole('cell', { name: 'first', exact: true })).toHaveCount(4);
  await takes.getByRole('button', { name: 'Begin' }).click();
  await expect(heading(page)).toContainText('Paste of the boats: 0 of');
  await expect(page.getByText(/^First the pilot: 4 machines/)).toBeVisible();

  const machines = page.getByRole('region', { name: 'Machines' });
  await expect(machines.getByText(/to be planned|planned for/)).toHaveCount(4);
  await page.getByRole('button', { name: 'Pause' }).click();
  await expect(page.getByText('Paused: none of its machines is planned.')).toBeVisible();
  await page.getByRole('button', { name: 'Let it run again' }).click();
  await machines.getByRole('button', { name: 'take out' }).last().click();
  await page.getByRole('button', { name: 'Take it out' }).click();
  await page.getByRole('button', { name: 'More machines …' }).click();
  const more = page.getByRole('dialog');
  await more.getByLabel('Machines').fill('DT-0030');
  await page.getByTitle(/^DT-0030 /).click();
  await more.getByText(/^More machines for/).click();
  await more.getByRole('button', { name: 'Save' }).click();
  await expect(machines.getByRole('row', { name: /DT-0030/ })).toBeVisible();
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export CSV' }).click();
  expect((await file).suggestedFilename()).toMatch(/^campaign-\d+\.csv$/);
  await page.getByRole('button', { name: 'End …' }).click();
  await page.getByRole('dialog').getByRole('textbox').fill('the boats sail');
  await page.getByRole('button', { name: 'End it' }).click();
  await expect(page.getByText(/^Ended .*: the boats sail$/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Pause' })).toBeHidden();
});

test('an empty house has no campaign and says what one is', async ({ page }) => {
  await page.route('**/api/v1/campaigns', (route) => route.fulfill({ json: { campaigns: [] } }));
  await page.goto('/weeks/campaigns');
  await expect(heading(page)).toHaveText('No campaign runs.');
  await expect(page.getByText(/The same work on many machines alike/)).toBeVisible();
});
