import { expect, test } from './server.js';

test.use({ demo: true });

test('the page can be installed: a manifest with pictures that are there, and a worker that is asked for anew', async ({
  page,
  request,
}) => {
  await page.goto('/bench');
  const href = await page.locator('link[rel=manifest]').getAttribute('href');
  const manifest = (await (await request.get(href!)).json()) as {
    name: string;
    display: string;
    start_url: string;
    icons: { src: string; sizes: string }[];
  };
  expect(manifest).toMatchObject({ name: 'Pyrometron', display: 'standalone', start_url: '/bench' });
  expect(manifest.icons.map((i) => i.sizes)).toEqual(expect.arrayContaining(['192x192', '512x512']));
  for (const icon of manifest.icons) expect((await request.get(icon.src)).ok()).toBe(true);
  const worker = await request.get('/sw.js');
  expect(worker.headers()['cache-control']).toBe('no-cache');
  expect(await page.evaluate(() => navigator.serviceWorker.ready.then((r) => r.active?.state))).toMatch(
    /activ/,
  );
});

test('what the worker keeps is the front end alone: the API is never answered from it', async ({ page }) => {
  await page.goto('/bench');
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  const kept = await page.evaluate(async () => {
    const all: string[] = [];
    for (const name of await caches.keys())
      for (const r of await (await caches.open(name)).keys()) all.push(new URL(r.url).pathname);
    return all;
  });
  expect(kept).toContain('/index.html');
  expect(kept.filter((p) => p.startsWith('/api') || p.startsWith('/openapi'))).toEqual([]);
});
