import { expect, test } from './server.js';

test.use({ demo: true });

const laptop = 'LT-0020';

test('a change of the house’s intervals is shown before it is kept, and then holds', async ({ page }) => {
  await page.goto('/rules');
  const preview = page.getByRole('region', { name: 'What this would change' });
  await expect(preview).toHaveText(/Nothing is changed yet/);
  await page.getByLabel('Laptops: months, dust-out', { exact: true }).fill('4');
  await expect(preview).toHaveText(/\d+ of 206 machines would change/);
  await expect(preview.getByRole('link', { name: /^LT-/ }).first()).toBeVisible();
  await expect(preview.getByText(/→ .*soon/).first()).toBeVisible();
  // Shown is not kept.
  const kept = async () =>
    (
      (await (await page.request.get('/api/v1/policy')).json()) as {
        intervals: { laptop: { dustOut: number } };
      }
    ).intervals.laptop.dustOut;
  expect(await kept()).toBe(8);
  await page.getByRole('button', { name: 'Keep these rules' }).click();
  await expect(page.getByText('Kept; the rounds follow at once.')).toBeVisible();
  expect(await kept()).toBe(4);
  await expect(preview).toHaveText(/Nothing is changed yet/);
});

test('a rule for some machines is written, seen at the machine with its reason, and taken away', async ({
  page,
}) => {
  await page.goto('/rules');
  await page.getByRole('button', { name: 'Add a rule for some machines' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('button', { name: 'Keep this rule' })).toBeDisabled();
  await dialog.getByText('machine', { exact: true }).click();
  await dialog.getByLabel('Machine', { exact: true }).fill('NOBODY');
  await dialog.getByRole('combobox', { name: 'What it sets' }).click();
  await page.keyboard.type('dust-out');
  await page.keyboard.press('Enter');
  await dialog.getByRole('button', { name: 'Keep this rule' }).click();
  await expect(dialog.getByText("There is no machine 'NOBODY'")).toBeVisible();
  await dialog.getByLabel('Machine', { exact: true }).fill(laptop);
  await dialog.getByRole('spinbutton', { name: 'Dust-out every' }).fill('2,5');
  await expect(dialog.getByText(/^1 of 206 machines would change/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep this rule' }).click();
  await expect(page.getByRole('row', { name: /machine LT-0020 .*Dust-out every: 2.5 months/ })).toBeVisible();

  await page.goto(`/machines/${laptop}`);
  await expect(page.getByText(/^2.5 months × .*dust of its zone = /)).toBeVisible();
  await expect(
    page.getByRole('row', { name: 'Dust-out every 2.5 months the rule for the machine LT-0020' }),
  ).toBeVisible();
  await expect(page.getByRole('row', { name: /New paste every 42 months the house’s rules/ })).toBeVisible();

  await page.goto('/rules');
  await page
    .getByRole('row', { name: /LT-0020/ })
    .getByRole('button', { name: 'Take away' })
    .click();
  await expect(page.getByRole('row', { name: /LT-0020/ })).toBeHidden();
});

test('what the record says of an interval is looked at, taken as a rule, or not wanted for a reason', async ({
  page,
}) => {
  await page.goto('/rules');
  const learnt = page.getByRole('region', { name: 'What the house’s own record says' });
  const suggestion = (name: string) => learnt.getByRole('listitem').filter({ hasText: name });
  await expect(suggestion('row A')).toHaveText(/dust-out every \d+ months, not \d+.*± .* K a month/);
  await suggestion('row A').getByRole('button', { name: 'Look at it and take it' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText(/of 206 machines would change/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep this rule' }).click();
  await expect(page.getByRole('row', { name: /zone Kelp hall, row A .*Dust-out every/ })).toBeVisible();
  // As a rule it holds: nothing is left to suggest there.
  await expect(suggestion('row A')).toBeHidden();

  await suggestion('Boat store').getByRole('button', { name: 'Not for us' }).click();
  await dialog.getByLabel('Why?').fill('Its filter is changed this winter.');
  await dialog.getByRole('button', { name: 'Leave it' }).click();
  await learnt.getByText('1 was not wanted').click();
  await expect(suggestion('Boat store')).toHaveText(/Its filter is changed this winter/);

  await expect(learnt.getByRole('img', { name: /Cost a month by the age/ })).toBeVisible();
  await expect(
    learnt.getByText(/6 fans were changed and nobody said why, \d+ run: a mean life of/),
  ).toBeVisible();
});

test('a rule for one kind in a zone says when machines may be down and that it takes two', async ({
  page,
}) => {
  await page.goto('/rules');
  await page.getByRole('button', { name: 'Add a rule for some machines' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByText('kind in a zone', { exact: true }).click();
  await dialog.getByRole('combobox', { name: 'Kind in a zone' }).click();
  await page.keyboard.type('Machine room');
  await page.keyboard.press('Enter');
  const sets = async (what: string) => {
    await dialog.getByRole('combobox', { name: 'What it sets' }).click();
    await page.keyboard.type(what);
    await page.keyboard.press('Enter');
  };
  await sets('down for work');
  await dialog.getByRole('combobox', { name: 'It may be down for work' }).click();
  await page.getByTitle('on weekends').click();
  await sets('takes two');
  await dialog.getByRole('button', { name: 'Keep this rule' }).click();
  await expect(
    page.getByRole('row', {
      name: /kind in a zone Machine room: Servers .*It may be down for work: on weekends · It takes two to open it: yes/,
    }),
  ).toBeVisible();
  const { rules } = (await (await page.request.get('/api/v1/rules')).json()) as {
    rules: { scope: string; key: string; machines: number }[];
  };
  const rule = rules.find((r) => r.scope === 'zone-kind')!;
  expect(rule.machines).toBe(10);
  // Servers elsewhere are left alone, and who is refused is told what a key is.
  const refused = await page.request.put('/api/v1/rules', {
    data: { scope: 'zone-kind', key: 'MROOM', change: { twoPeople: true } },
  });
  expect(refused.status()).toBe(400);
});
