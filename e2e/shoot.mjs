// Takes one picture of a page of a running server: node shoot.mjs URL FILE [WIDTHxHEIGHT] [wait-for-text] [script]
import { chromium } from '@playwright/test';
import launch from './chromium.json' with { type: 'json' };

const [url, file, size = '1280x800', text, act] = process.argv.slice(2);
const [width, height] = size.split('x').map(Number);
const browser = await chromium.launch(launch);
const page = await browser.newPage({
  viewport: { width, height },
  locale: 'en-GB',
  ignoreHTTPSErrors: true,
  colorScheme: process.env.DARK ? 'dark' : 'light',
});
page.on('console', (m) => m.type() === 'error' && console.error('console:', m.text()));
page.on('pageerror', (e) => console.error('page:', e.message));
await page.goto(url);
if (text) await page.getByText(text).first().waitFor({ timeout: 20000 });
if (act) await new Function('page', `return (async () => { ${act} })()`)(page);
await page.waitForTimeout(700);
await page.screenshot({ path: file });
await browser.close();
