import type { Page } from '@playwright/test';
import { expect, test } from './server.js';

/**
 * The language that nobody speaks: every text a translator was given wears accents and is 40 % longer. A plain English word on
 * the page was never given to one, and what is cut here would be cut in a real language.
 */
test.use({ demo: true });

/** Members of the API's answers that are the house's own words, not ours. */
const OWN_WORDS = new Set(
  (
    'asset tag code zone zoneName site siteName name model maker note notes workload settings by owner host hostTag inWords ' +
    'caption answer scope condition to batch place position driver item title partNumber load currency scoreUnit source sources ' +
    'product productName bits tools withoutNotes fits countedBy for campaign endedBecause goneOnBy mailTo webhookUrl folder who runtime system'
  ).split(' '),
);

/** Written by the parts of Ant Design itself, for readers of screens alone; and the word that the browser puts into a list of bits. */
const BROUGHT_ALONG = /^(Increase Value|Decrease Value)$| (PH|T)\d+(, (PH|T)\d+)*,? and (PH|T)\d+$/;

/** A file of which lines and columns are refused, each for another reason. */
const refused =
  (name: string, text: string) =>
  async (page: Page): Promise<void> => {
    await page
      .locator('input[type=file]')
      .first()
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
    await page.locator('main [role=alert], main [role=status], main table').first().waitFor();
  };

const PAGES: readonly (readonly [path: string, open?: (page: Page) => Promise<void>])[] = [
  ['/'],
  ['/?by=warranty', (page) => page.keyboard.press('e')],
  ['/', (page) => page.keyboard.press('n')],
  ['/weeks', (page) => page.locator('.weeks-job').first().click()],
  ['/weeks'],
  ['/weeks/people'],
  ['/weeks/people', (page) => page.locator('.weeks-staff button').nth(1).click()],
  ['/weeks', (page) => page.locator('.weeks-who a').first().click()],
  ['/rules/backups'],
  ['/rules/accounts'],
  ['/rules/audit'],
  ['/rules/housekeeping'],
  ['/rules/reference', (page) => page.locator('.api-call summary').nth(3).click()],
  ['/rules/reference'],
  ['/rules/accounts', (page) => page.locator('.button-row .ant-btn-primary').first().click()],
  ['/account'],
  ['/phone'],
  ['/notices'],
  ['/notices/people'],
  ['/weeks/campaigns'],
  ['/weeks/campaigns/1'],
  ['/weeks/campaigns/new?zone=BOAT'],
  ['/halls', (page) => page.locator('.hall-zone').first().click()],
  ['/halls?as=list'],
  ['/machines/GC-0117'],
  ['/machines/SV-0025', (page) => page.keyboard.press('?')],
  ['/machines/DT-0025', (page) => page.locator('.shell-foot button').first().click()],
  ['/bench'],
  ['/bench/1'],
  ['/bench/6'],
  ['/bench/1/paper'],
  ['/bench/1/proof'],
  ['/bench/1/typed'],
  ['/bench/new?asset=GC-0117&level=repad'],
  ['/log'],
  ['/proof'],
  ['/proof/report'],
  ['/proof?by=zone'],
  ['/proof?by=batch'],
  ['/stores'],
  ['/stores', (page) => page.locator('.stores-product button').first().click()],
  ['/stores/lots/1'],
  ['/stores/count'],
  ['/stores/shopping?jobs=200'],
  ['/stores/paste'],
  [
    '/stores/pad',
    async (page) => {
      await page.locator('.stores-pads input').nth(1).fill('1.7');
      await page.locator('[aria-live] h2').first().waitFor();
    },
  ],
  ['/stores/labels'],
  ['/stores/cutting'],
  ['/bring?asset=GC-0117&asset=DT-0031'],
  ['/models'],
  ['/models/Petrel%20desktop'],
  ['/labels'],
  ['/scan'],
  ['/intake'],
  [
    '/intake',
    refused(
      'readings.csv',
      'time,asset,core_c,power_w,colour\n' +
        'today,GC-0117,60,200,\n2026-05-01T06:00Z,NO-1,60,200,\n1980-01-01T00:00Z,GC-0117,60,200,\n' +
        '2099-01-01T00:00Z,GC-0117,60,200,\n2026-05-01T06:00Z,GC-0117,warm,200,\n2026-05-01T06:00Z,GC-0117,-300,200,\n' +
        '2026-05-01T06:00Z,GC-0117,60,-2,\n2026-05-01T06:00Z,GC-0117\n2026-05-01T06:00Z,GC-0117,"60,200,\n',
    ),
  ],
  [
    '/intake',
    refused('services.csv', 'date,asset,level\n31.02.2026,GC-0117,repad\n2026-05-01,GC-0117,polish\n'),
  ],
  ['/intake', refused('readings.csv', 'time;asset;core_c\n2026-05-01T06:00Z;GC-0117;60,5\n')],
  [
    '/intake',
    refused('fleet.json', '{ "format": "pyrometron-fleet/1", "sites": [{ "code": "" }], "assets": 7 }'),
  ],
  ['/start'],
  ['/round'],
  ['/rules'],
  ['/nowhere'],
];

/** Pages that have more to show where there is room. */
const WIDE = ['/', '/halls?as=list', '/machines/GC-0117', '/bench/1', '/bench/6', '/log', '/proof', '/rules'];

/** What is untranslated or cut on the page as it stands. */
function faults(known: readonly string[]): string[] {
  const found: string[] = [];
  const plain = (text: string) => {
    if (text.trim() === 'Pyrometron') return [];
    let rest = text.replace(
      /\b(Mon|Tue|Wed|Thu|Fri|Sat|Sun)\b|\d{1,2} [A-Z][a-z]{2,3}( \d{4})?|^[A-Z][a-z]{2,3}$/g,
      ' ',
    );
    for (const own of known) rest = rest.split(own).join(' ');
    return (rest.match(/[A-Za-z]{3,}/g) ?? []).filter((word) => !/^(CSV|JSON|SVG|PNG)$/.test(word));
  };
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (walker.nextNode()) {
    const text = walker.currentNode as Text;
    if (text.parentElement!.closest('script,style,code,kbd,textarea,[translate=no]')) continue;
    if (plain(text.data).length > 0) found.push(`plain: ${text.data.trim()}`);
  }
  for (const attribute of ['aria-label', 'title', 'placeholder', 'alt'])
    for (const element of Array.from(document.querySelectorAll(`[${attribute}]:not(.anticon)`)))
      if (plain(element.getAttribute(attribute)!).length > 0)
        found.push(`plain ${attribute}: ${element.getAttribute(attribute)!}`);
  for (const element of Array.from(document.querySelectorAll<HTMLElement>('body *')))
    if (
      element.scrollWidth > element.clientWidth + 1 &&
      element.clientWidth > 1 &&
      /hidden|clip/.test(getComputedStyle(element).overflowX) &&
      element.textContent.trim() !== '' &&
      // A job's block is as long as the job; its label and the side panel say all of it.
      !element.closest('.weeks-track')
    )
      found.push(`cut: ${element.textContent.trim().slice(0, 80)}`);
  if (document.documentElement.scrollWidth > innerWidth) found.push('the page is wider than the window');
  return found;
}

/** A desk, and less than the smallest phone: a desk's window at four times the size (WCAG 1.4.10). */
for (const width of [1280, 320])
  test(`nothing is untranslated and nothing is cut at ${String(width)} px`, async ({ page }) => {
    const own = new Set([
      'readings.csv',
      'services.csv',
      'fleet.json',
      // Words of these files that refusals repeat.
      'colour',
      'warm',
      'today',
      'polish',
      'time',
      'asset',
      'core_c',
      'date',
      'level',
    ]);
    const answers: Promise<void>[] = [];
    const take = (value: unknown, member: string): void => {
      if (typeof value === 'string') {
        if (OWN_WORDS.has(member) && value.length > 2) own.add(value);
      } else if (Array.isArray(value)) value.forEach((v) => take(v, member));
      else if (value !== null && typeof value === 'object') {
        const { unit, text } = value as { unit?: unknown; text?: unknown };
        if (unit === 'text' && typeof text === 'string') own.add(text);
        // Why somebody is away, a zone is closed or a machine waits, as typed.
        const { reason } = value as { reason?: unknown };
        if (('from' in value || 'until' in value) && typeof reason === 'string') own.add(reason);
        Object.entries(value).forEach(([name, v]) => take(v, name));
      }
    };
    page.on('response', (response) => {
      if (response.url().includes('/api/') && response.headers()['content-type']?.includes('json'))
        answers.push(
          response.json().then(
            (answer) => take(answer, ''),
            () => undefined,
          ),
        );
    });
    await page.addInitScript(() => localStorage.setItem('pyrometron.language', 'en-XA'));
    await page.setViewportSize({ width, height: 800 });
    const wrong: string[] = [];
    for (const [path, open] of PAGES) {
      // Dialogs are opened from a desk; pages that look alike at any width are walked at the narrow one.
      if (width < 1000 ? open : !open && !WIDE.includes(path)) continue;
      await page.goto(path);
      await expect(page.locator('main')).toContainText(/[ẋéàöîñ]/);
      await expect(page.locator('[aria-busy=true]')).toHaveCount(0);
      if (open) {
        await open(page);
        await page.waitForTimeout(600);
      }
      await Promise.all(answers);
      const known = [...own].sort((a, b) => b.length - a.length);
      wrong.push(...(await page.evaluate(faults, known)).map((fault) => `${path}: ${fault}`));
    }
    expect([...new Set(wrong)].filter((fault) => !BROUGHT_ALONG.test(fault.replace(/^.*: /, '')))).toEqual(
      [],
    );
  });
