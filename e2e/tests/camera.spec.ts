import { mkdirSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { chromium } from '@playwright/test';
import { expect, test } from './server.js';

test.use({ demo: true });

test('a label held before the camera opens its machine', async ({ page, server, launchOptions }) => {
  // A film of one picture, the label's own code as the server draws it, is what the camera sees.
  await page.goto(`/labels?asset=SV-0025`);
  await page.getByAltText('QR code of SV-0025').waitFor();
  const address = `${server.url}/machines/SV-0025`;
  await page.setContent(
    `<body style="margin:0;background:#999;display:grid;place-items:center;height:100vh">
      <img width=300 src="${server.url}/api/v1/qr.svg?text=${encodeURIComponent(address)}"></body>`,
  );
  await page.setViewportSize({ width: 640, height: 480 });
  await expect(page.locator('img')).toHaveJSProperty('complete', true);
  const folder = resolve(import.meta.dirname, '../.work/camera');
  mkdirSync(folder, { recursive: true });
  const film = resolve(folder, 'label.mjpeg');
  writeFileSync(film, await page.screenshot({ type: 'jpeg', quality: 95 }));

  const seeing = await chromium.launch({
    ...launchOptions,
    args: [
      ...(launchOptions.args ?? []),
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-video-capture=${film}`,
    ],
  });
  const phone = await seeing.newPage();
  await phone.goto(`${server.url}/scan`);
  await phone.getByRole('button', { name: 'Use the camera' }).click();
  await expect(phone).toHaveURL(/machines\/SV-0025$/, { timeout: 30_000 });
  await seeing.close();
});
