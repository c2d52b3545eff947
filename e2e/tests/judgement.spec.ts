import { expect, test } from './server.js';

test.use({ demo: true });

test('a report of a crash leads the rounds, and withdrawing it takes that back', async ({ page }) => {
  await page.request.get('/api/v1/queue?limit=1&wait=60');
  await page.goto('/machines/DT-0002');
  await page.getByRole('button', { name: 'Report a symptom' }).click();
  await page.getByText('crashes or hangs').click();
  await page.getByLabel('In their words').fill('Restarts when the survey is rendered.');
  await page.getByRole('button', { name: 'Report it' }).click();
  await expect(page.getByText('Crashes, reported on').first()).toBeVisible({ timeout: 30_000 });
  const queue = (await (await page.request.get('/api/v1/queue?limit=3&wait=60')).json()) as {
    items: { asset: string; urgency: string }[];
  };
  expect(queue.items.find((i) => i.asset === 'DT-0002')?.urgency).toBe('now');
  await page.getByRole('button', { name: 'Withdraw' }).click();
  await page.getByLabel('Why?').fill('It was the power strip.');
  await page.getByRole('dialog').getByRole('button', { name: 'Withdraw' }).click();
  await expect(page.getByText('struck out: It was the power strip.')).toBeVisible();
  await expect(page.getByText('Crashes, reported on')).toHaveCount(0, { timeout: 30_000 });
});

test('every figure of the table opens to what it is made of', async ({ page }) => {
  await page.goto('/machines/GC-0117');
  await page.getByRole('button', { name: /±/ }).last().click();
  const making = page.getByRole('tooltip').or(page.locator('.ant-popover')).last();
  await expect(making.getByText('rise with everything fresh')).toBeVisible();
  await expect(making.getByText('Pads')).toBeVisible();
  const numbers = (await making.locator('td').allInnerTexts()).map((t) =>
    Number.parseFloat(t.replace('−', '-')),
  );
  const [fresh, found, unexplained, measured] = [numbers[0]!, ...numbers.slice(-4, -1)] as [
    number,
    number,
    number,
    number,
  ];
  expect(found).toBeGreaterThan(fresh + 8);
  // What no cause explains is told, and with it the causes add up to what is measured.
  await expect(making.getByText('unexplained')).toBeVisible();
  expect(Math.abs(measured - found - unexplained)).toBeLessThanOrEqual(1);
});

test('what a level is worth adds up, and goes by what things are worth to the house', async ({ page }) => {
  const worth = () => page.getByRole('row', { name: /\(advised\)/ }).getByRole('button');
  await page.goto('/machines/SV-0021');
  await worth().click();
  const making = page.locator('.ant-popover').last();
  await expect(making.getByText('slower ageing')).toBeVisible();
  const amounts = (await making.locator('td').allInnerTexts()).map((t) =>
    Number.parseFloat(t.replace('−', '-').replace(',', '')),
  );
  const left = amounts.pop()!;
  expect(Math.abs(amounts.reduce((sum, a) => sum + a, 0) - left)).toBeLessThanOrEqual(2);

  await page.goto('/rules');
  await page.getByLabel('Currency').fill('crowns');
  await page.getByLabel('Servers: a new one').fill('90000');
  await page.getByText('Most value').click();
  await page.getByRole('button', { name: 'Keep these rules' }).click();
  await expect(page.getByText('Kept; the rounds follow at once.')).toBeVisible();
  await page.request.get('/api/v1/queue?limit=1&wait=60');
  await page.goto('/machines/SV-0021');
  await expect(worth()).toHaveText(/\d,\d{3} crowns/);
  const queue = (await (await page.request.get('/api/v1/queue?limit=40&wait=60')).json()) as {
    items: { urgency: string; valuePerHour: number | null; reason: string }[];
  };
  const next = queue.items.filter((i) => i.urgency === 'next' && i.valuePerHour !== null);
  expect(next.map((i) => i.valuePerHour)).toEqual(
    [...next].sort((a, b) => b.valuePerHour! - a.valuePerHour!).map((i) => i.valuePerHour),
  );
});

test('a sensor log becomes a run with its curve', async ({ page }) => {
  const answer = await page.request.post('/api/v1/jobs', {
    data: { asset: 'GC-0151', level: 'dust-out', warrantyAnswer: 'agreed' },
  });
  const { id } = (await answer.json()) as { id: number };
  await page.goto(`/bench/${String(id)}`);
  const lines = ['minutes,core_c,memory_c,ambient_c,power_w,clock_mhz'];
  for (let i = 0; i <= 80; i++) {
    const t = i * 0.25;
    lines.push(
      [
        t,
        Math.round(79 - 51 * Math.exp(-t / 4)),
        Math.round(92 - 63 * Math.exp(-t / 9)),
        25.5,
        228,
        t < 15 ? 1840 : 1500,
      ].join(','),
    );
  }
  await page.setInputFiles('input[aria-label="Sensor log"]', {
    name: 'run.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(lines.join('\n')),
  });
  await expect(page.getByText(/Core: settles at 7[89]/)).toBeVisible();
  await expect(page.getByText('Still rising at the end: memory')).toBeVisible();
  await expect(page.getByText('It throttled from minute 15')).toBeVisible();
  await expect(page.getByLabel('Core, settled, °C')).toHaveValue(/^7[89]/);
  await expect(page.getByLabel('Minutes under load')).toHaveValue('20');
  await expect(page.getByLabel('It throttled')).toBeChecked();
  await page.setInputFiles('input[aria-label="Sensor log"]', {
    name: 'photo.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from([255, 216, 255, 224, 0, 16]),
  });
  await expect(page.getByText(/no UTF-8 text/)).toBeVisible();
});

test('house rules decide what the rounds ask for', async ({ page }) => {
  await page.goto('/rules');
  await page.getByText('Only when it fails').click();
  await page.getByRole('button', { name: 'Keep these rules' }).click();
  await expect(page.getByText('Kept; the rounds follow at once.')).toBeVisible();
  const counts = async () =>
    (
      (await (await page.request.get('/api/v1/queue?limit=1&wait=60')).json()) as {
        counts: Record<string, number>;
      }
    ).counts;
  expect((await counts())['next'] ?? 0).toBe(0);
  await page.getByText('Whichever comes first').click();
  await page.getByRole('button', { name: 'Keep these rules' }).click();
  await expect.poll(async () => (await counts())['next'] ?? 0).toBeGreaterThan(5);
  await page.getByLabel(/not worth opening/).fill('9');
  await page.getByLabel(/at once, K/).fill('3');
  await page.getByRole('button', { name: 'Keep these rules' }).click();
  await expect(page.locator('form').getByText('muchKelvin cannot be less than worthKelvin')).toBeVisible();
});

test('a chart is read by keys, looked at closer, has its table one press away and can be taken along', async ({
  page,
}) => {
  await page.goto('/machines/GC-0159');
  const chart = page.getByRole('slider', { name: /^Rise of the hot spot above its air/ });
  await expect(chart).toBeVisible({ timeout: 30_000 });
  await chart.focus();
  await page.keyboard.press('Home');
  const first = await chart.getAttribute('aria-valuetext');
  await page.keyboard.press('ArrowRight');
  await expect(chart).toHaveAttribute('aria-valuenow', '2');
  expect(await chart.getAttribute('aria-valuetext')).not.toBe(first);
  await expect(page.getByText('K above the air').first()).toBeVisible();
  const figure = page.locator('figure.chart').first();
  await page.keyboard.press('End');
  await page.keyboard.press('+');
  await expect(figure.getByText('a part')).toBeVisible();
  await page.keyboard.press('-');
  await expect(figure.getByText('a part')).toBeHidden();
  // A span is dragged over; both charts look at it.
  const box = (await chart.locator('svg').boundingBox())!;
  await page.mouse.move(box.x + 200, box.y + 100);
  await page.mouse.down();
  await page.mouse.move(box.x + 400, box.y + 100);
  await page.mouse.up();
  await expect(page.locator('figure.chart').getByText('a part')).toHaveCount(2);
  await figure.getByRole('button', { name: 'Table' }).click();
  await expect(figure.getByRole('columnheader', { name: 'fitted, K' })).toBeVisible();
  for (const [choice, name] of [
    ['Picture, SVG', 'GC-0159-hotspot-rise.svg'],
    ['Picture, PNG', 'GC-0159-hotspot-rise.png'],
    ['Table, CSV', 'GC-0159-hotspot-rise.csv'],
  ] as const) {
    await figure.getByRole('button', { name: 'Export' }).click();
    const saved = page.waitForEvent('download');
    await page.getByRole('menuitem', { name: choice }).click();
    expect((await saved).suggestedFilename()).toBe(name);
  }
});

test('several machines are chosen and start a round together', async ({ page }) => {
  await page.goto('/?q=DT-00&order=tag');
  await page.getByLabel('Choose DT-0007').check({ timeout: 30_000 });
  await page.getByLabel('Choose DT-0015').check();
  await expect(page.getByText(/^2 machines chosen/)).toBeVisible();
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export CSV' }).click();
  expect((await saved).suggestedFilename()).toBe('rounds.csv');
  await page.getByRole('button', { name: 'Start a round' }).click();
  await expect(page.getByText('2 machines chosen on Rounds.')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'DT-0007' })).toBeVisible();
});
