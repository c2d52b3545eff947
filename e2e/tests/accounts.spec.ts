import { expect, test, type Browser, type BrowserContext, type Page } from '@playwright/test';
import launch from '../chromium.json' with { type: 'json' };
import { withoutBefore } from './bench-walk.js';
import { Server } from './server.js';

// The certificate that the house makes is checked in the server's own tests; a browser knows its root once it is installed.
test.use({
  launchOptions: {
    ...launch,
    executablePath: process.env['CHROMIUM'] ?? launch.executablePath,
    args: [...launch.args, '--ignore-certificate-errors'],
  },
});

const PASSWORD = 'kelp lantern tide rope';

test.describe.configure({ mode: 'serial' });
let server: Server;
test.beforeAll(async () => {
  server = await Server.start('accounts', true, true);
});
test.afterAll(() => server.stop());

const desk = (browser: Browser): Promise<BrowserContext> =>
  browser.newContext({ baseURL: server.url, ignoreHTTPSErrors: true });
const phone = (browser: Browser): Promise<BrowserContext> =>
  browser.newContext({
    baseURL: server.url,
    ignoreHTTPSErrors: true,
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });

async function signIn(page: Page, account: string): Promise<void> {
  await page.getByLabel('Sign-in name').fill(account);
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

test('a house is set up, a phone comes in by its link, works without network, and loses nothing when it is signed out', async ({
  browser,
}) => {
  test.setTimeout(240_000);
  const errors: string[] = [];
  const mira = await (await desk(browser)).newPage();
  mira.on('console', (m) => {
    if (m.text().includes('Content Security Policy')) errors.push(m.text());
  });

  // Nobody is in: every address asks to sign in, and says where the first link is.
  await mira.goto('/weeks');
  await expect(mira.getByText('Nobody can sign in yet.')).toBeVisible();
  await expect.poll(() => /\/enter#\S+/.exec(server.said)?.[0]).toBeTruthy();
  await mira.goto(/\/enter#\S+/.exec(server.said)![0]);
  await mira.getByLabel('Your name, as others see it').fill('Mira Larkspur');
  await mira.getByLabel(/^Sign-in name/).fill('mira');
  await mira.getByLabel(/^Password/).fill('too short');
  await mira.getByRole('button', { name: 'Come in' }).click();
  await expect(mira.getByRole('alert')).toContainText('15 characters or more');
  await mira.getByLabel(/^Password/).fill(PASSWORD);
  await mira.getByRole('button', { name: 'Come in' }).click();
  await expect(mira.locator('.rounds-row').first()).toBeVisible();

  // She lets a technician in.
  await mira.goto('/rules/accounts');
  await mira.getByRole('button', { name: 'Let somebody in …' }).click();
  await mira.getByLabel('Name, as others see it').fill('Juno Teal');
  await mira.getByLabel(/^Sign-in name/).fill('juno');
  await mira.getByRole('button', { name: 'Save' }).click();
  const link = await mira
    .getByRole('dialog', { name: 'The link for Juno Teal' })
    .locator('code')
    .textContent();
  await mira.getByRole('button', { name: 'Close' }).click();
  await expect(mira.getByRole('row', { name: /^Juno Teal juno/ })).toContainText('has a link until');

  // On the phone.
  const pocket = await phone(browser);
  const juno = await pocket.newPage();
  await juno.goto(link!);
  await expect(juno.getByRole('heading', { name: 'Welcome to Pyrometron, Juno Teal' })).toBeVisible();
  await juno.getByLabel(/^Password/).fill(PASSWORD);
  await juno.getByRole('button', { name: 'Come in' }).click();
  await expect(juno.locator('.rounds-row').first()).toBeVisible();
  const begun = await pocket.request.post('/api/v1/jobs', {
    data: { asset: 'DT-0015', level: 'dust-out', warrantyAnswer: 'The seller agreed by letter.' },
  });
  const { id } = (await begun.json()) as { id: number };
  await juno.goto('/bench');
  await withoutBefore(juno, id);
  await juno.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));

  // The network goes; work goes on. Meanwhile the phone is thought lost.
  await pocket.setOffline(true);
  await juno.getByRole('textbox', { name: 'Note' }).fill('lint in the intake');
  await juno.getByRole('textbox', { name: 'Note' }).blur();
  await expect(juno.getByText('No network.')).toBeVisible();
  await mira.reload();
  await mira
    .getByRole('row', { name: /^Juno Teal juno/ })
    .getByRole('button', { name: 'Sign out everywhere' })
    .click();
  await expect(mira.getByRole('row', { name: /^Juno Teal juno/ })).toContainText('signed in nowhere');
  const noteOf = async () =>
    ((await (await mira.request.get(`/api/v1/jobs/${id}`)).json()) as { note: string | null }).note;

  // Back in the network it is asked to sign in; what waits is neither sent nor lost.
  await pocket.setOffline(false);
  await expect(juno.getByRole('heading', { name: 'Sign in' })).toBeVisible({ timeout: 40_000 });
  await expect(juno.getByText('One entry waits on this device.')).toBeVisible();
  expect(await noteOf()).toBeNull();
  // Somebody else who signs in here does not send it in her name.
  await signIn(juno, 'mira');
  await expect(juno.getByText(/What Juno Teal did here waits/)).toBeVisible({ timeout: 20_000 });
  expect(await noteOf()).toBeNull();
  await juno.goto('/account');
  await juno.getByRole('button', { name: 'Sign out', exact: true }).first().click();
  await signIn(juno, 'juno');
  await expect.poll(noteOf, { timeout: 20_000 }).toBe('lint in the intake');

  // The desk sees who did what.
  await mira.goto('/log?asset=DT-0015');
  await expect(mira.getByText('Juno Teal').first()).toBeVisible();
  // What a technician may not is said, and not done.
  const refused = await pocket.request.put('/api/v1/policy', { data: {} });
  expect([400, 403]).toContain(refused.status());
  expect((await pocket.request.get('/api/v1/accounts')).status()).toBe(403);
  expect(errors).toEqual([]);
});

test('a second factor is set up and asked for', async ({ browser }) => {
  const context = await desk(browser);
  const page = await context.newPage();
  await page.goto('/account');
  await signIn(page, 'mira');
  await page.getByRole('button', { name: 'Set one-time codes up …' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Password').fill(PASSWORD);
  await dialog.getByRole('button', { name: 'Next' }).click();
  await expect(dialog.getByAltText('The secret as a QR code')).toBeVisible();
  await dialog.getByLabel('The code that it shows now').fill('000000');
  await dialog.getByRole('button', { name: 'Ask for it from now on' }).click();
  await expect(dialog.getByRole('alert')).toContainText('not the code of the moment');
  const secret = (await dialog.locator('code').textContent())!;
  await dialog.getByLabel('The code that it shows now').fill(await totp(secret));
  await dialog.getByRole('button', { name: 'Ask for it from now on' }).click();
  const codes = dialog.locator('.code-list code');
  await expect(codes).toHaveCount(10);
  const recovery = (await codes.first().textContent())!;
  await dialog.getByRole('button', { name: 'I have them' }).click();
  await expect(page.getByText('10 recovery codes are left')).toBeVisible();

  await page.getByRole('button', { name: 'Sign out', exact: true }).first().click();
  await signIn(page, 'mira');
  await expect(page.getByRole('alert')).toContainText('The code that your phone shows is needed too.');
  await page.getByLabel('Code of your phone, or a recovery code').fill(recovery);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('9 recovery codes are left')).toBeVisible();
});

/** The code of the moment (RFC 6238): what a phone would show. */
async function totp(secret: string): Promise<string> {
  const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';
  const bits = [...secret].map((c) => letters.indexOf(c).toString(2).padStart(5, '0')).join('');
  const bytes = Uint8Array.from(bits.match(/.{8}/g)!.map((b) => parseInt(b, 2)));
  const counter = new DataView(new ArrayBuffer(8));
  counter.setBigUint64(0, BigInt(Math.floor(Date.now() / 30_000)));
  const key = await crypto.subtle.importKey('raw', bytes, { name: 'HMAC', hash: 'SHA-1' }, false, ['sign']);
  const hash = new DataView(await crypto.subtle.sign('HMAC', key, counter.buffer));
  const at = hash.getUint8(19) & 15;
  return String((hash.getUint32(at) & 0x7fffffff) % 1_000_000).padStart(6, '0');
}
