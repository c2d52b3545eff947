import { expect, test } from './server.js';

test.use({ demo: false, file: 'ten-thousand' });

test('ten thousand machines scroll and filter without a thousand rows in the page', async ({
  page,
  server,
}) => {
  test.setTimeout(180_000);
  const assets = Array.from({ length: 10_000 }, (_, i) => ({
    tag: `PC-${String(i).padStart(5, '0')}`,
    kind: 'desktop',
    model: 'Petrel desktop',
    zone: `Z${i % 20}`,
    dutyHoursPerDay: 8,
    inServiceSince: '2025-01-10',
    warrantyUntil: null,
    parts: [{ part: 'cpu', limitCelsius: 95, interface: 'paste' }],
    services: [],
  }));
  const zones = Array.from({ length: 20 }, (_, i) => ({
    code: `Z${i}`,
    name: `Floor ${i}`,
    dust: 'normal',
    designAmbientCelsius: 30,
  }));
  const body = JSON.stringify({
    format: 'pyrometron-fleet/1',
    sites: [{ code: 'S', name: 'Tower', altitudeMetres: 1, zones }],
    assets,
  });
  expect((await server.post('fleet', body)).ok).toBe(true);
  await page.goto('/?by=zone');
  await expect(page.locator('.rounds-row').first()).toBeVisible({ timeout: 60_000 });
  await expect(async () => {
    await page.locator('.rounds-scroll').evaluate((list) => list.scrollTo(0, list.scrollHeight));
    await expect(page.locator('.rounds-row', { hasText: 'Floor 19' }).first()).toBeVisible({ timeout: 1000 });
  }).toPass({ timeout: 30_000 });
  expect(await page.locator('.rounds-row').count()).toBeLessThan(60);
  await page.keyboard.press('f');
  await expect(page.getByLabel('Find a machine')).toBeFocused();
  await page.keyboard.type('PC-09999');
  await expect(page.locator('.rounds-row')).toHaveCount(1);
});
