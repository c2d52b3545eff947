import { expect, test } from './server.js';

test.use({ demo: true });

interface Won {
  all: { jobs: number; notCompared: number; meanKelvin: number };
  groups: { key: string; won: { jobs: number; meanKelvin: number | null } }[];
  withoutGain: { id: number; asset: string }[];
}

test('what work has won adds up, is narrowed down, and leads to each job', async ({ page }) => {
  await page.goto('/proof');
  const answer = (await (await page.request.get('/api/v1/proof')).json()) as Won;
  expect(answer.all.jobs).toBeGreaterThan(4);
  expect(answer.groups.reduce((sum, g) => sum + g.won.jobs, 0)).toBe(answer.all.jobs);
  const compared = answer.all.jobs - answer.all.notCompared;
  await expect(
    page.getByRole('heading', {
      name: new RegExp(`^${String(answer.all.jobs)} jobs done: the ${String(compared)} compared won`),
    }),
  ).toBeVisible();
  // The choice stands in the address, so that it can be sent to somebody.
  await page.getByText('by month', { exact: true }).click();
  await expect(page).toHaveURL(/by=month/);
  await expect(page.getByRole('row', { name: /^\p{L}+ 20\d\d /u }).first()).toBeVisible();
  await page.getByLabel('to', { exact: true }).fill('2001-01-01');
  await expect(page.getByRole('heading', { name: 'No work is filed in these days.' })).toBeVisible();
  await page.getByLabel('to', { exact: true }).fill('');
  const lost = answer.withoutGain[0]!;
  await page.getByRole('link', { name: `job ${String(lost.id)}` }).click();
  await expect(page).toHaveURL(new RegExp(`/bench/${String(lost.id)}$`));
});

test('the same jobs as CSV, and what cannot be asked is refused in words', async ({ page }) => {
  const csv = await (await page.request.get('/api/v1/proof.csv')).text();
  const answer = (await (await page.request.get('/api/v1/proof')).json()) as Won;
  const [head, ...lines] = csv.trimEnd().split('\r\n');
  expect(head).toMatch(/^job,asset,model,zone,level,done,outcome,won_k,expanded_uncertainty_k,/);
  expect(lines).toHaveLength(answer.all.jobs);
  // The mean is that of the lines.
  // By its head; a model's name in quotes may have a comma, products come behind it without any.
  const behind = head!.split(',').length - head!.split(',').indexOf('won_k');
  const won = lines.map((l) => l.split(',').at(-behind)!).filter((k) => k !== '');
  const mean = won.reduce((sum, k) => sum + Number(k), 0) / won.length;
  expect(mean).toBeCloseTo(answer.all.meanKelvin, 1);
  for (const query of ['by=person', 'from=2026-02-01&until=2026-01-01']) {
    const refused = await page.request.get(`/api/v1/proof?${query}`);
    expect(refused.status()).toBe(400);
    expect(((await refused.json()) as { errors: { pointer: string }[] }).errors[0]!.pointer).toMatch(
      /^.(by|until)$/,
    );
  }
});

test('what work won in money opens to its making, and stated dates are held against what came', async ({
  page,
}) => {
  await page.goto('/proof');
  const { money, spent, currency } = (await (await page.request.get('/api/v1/proof')).json()) as {
    money: { jobs: number; all: number; ageing: number; performance: number; noise: number; crashes: number };
    spent: { all: number };
    currency: string;
  };
  expect(money.jobs).toBeGreaterThan(4);
  expect(money.ageing + money.performance + money.noise + money.crashes).toBeCloseTo(money.all, 6);
  expect(spent.all).toBeGreaterThan(0);
  await page.getByRole('row', { name: /^all / }).getByRole('button').last().click();
  await expect(page.getByText('slower ageing')).toBeVisible();
  await expect(page.getByText(`in all, from ${String(money.jobs)} jobs compared`)).toBeVisible();
  await page.keyboard.press('Escape');
  const dates = page.getByRole('region', { name: 'The dates that were stated, and what came' });
  await expect(dates.getByText(/machines had a date at which to reach the action line/)).toBeVisible({
    timeout: 30_000,
  });
  await dates.getByText('30 days ago').click();
  const { dates: held } = (await (await page.request.get('/api/v1/proof/dates?days=30')).json()) as {
    dates: { dated: number; served: number; groups: { cases: number }[] };
  };
  expect(held.groups.reduce((sum, g) => sum + g.cases, 0)).toBe(held.dated - held.served);
  expect((await page.request.get('/api/v1/proof/dates?days=7')).status()).toBe(400);
  await page.getByRole('link', { name: 'One page for whoever pays' }).click();
  await expect(page.getByText(new RegExp(`within 2 years`))).toBeVisible();
  await expect(page.getByText(new RegExp(`± [\\d,.]+ ${currency}`)).first()).toBeVisible();
});
