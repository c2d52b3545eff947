import { expect, test } from './server.js';

// The first hour of a house that has a list of its machines and no sensors: from an empty start to a queue that says why.
test.use({ demo: false, file: 'first-hour' });

const LIST = [
  'Inventarnr\tTyp\tModell\tRaum\tGekauft am\tLetzte Reinigung',
  ...Array.from({ length: 30 }, (_, i) => {
    const n = String(i + 1).padStart(3, '0');
    // Three of them were cleaned this month, the others years ago.
    const cleaned =
      i < 3
        ? new Date(Date.now() - 86_400_000 * 5).toLocaleDateString('de-DE')
        : `${String((i % 28) + 1)}.2.2022`;
    return `PC-${n}\tDesktop-PC\tPetrel 7\tKartenraum\t1.4.2021\t${cleaned}`;
  }),
].join('\n');

test('thirty desktops pasted as a table, readings typed on a round, and Rounds says what is due and what was measured', async ({
  page,
}) => {
  test.setTimeout(120_000);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'No machines yet. What do you have?' })).toBeVisible();
  await page.getByRole('button', { name: 'Bring in a list' }).click();
  await page.getByRole('button', { name: 'Paste a table …' }).click();
  await page.getByRole('textbox').last().fill(LIST);
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByText('30 machines new')).toBeVisible();
  await expect(page.getByText(/Hours a day: 8/)).toBeVisible();
  await page.getByRole('button', { name: 'Import 30 machines' }).click();
  await page.getByRole('button', { name: 'To Rounds' }).click();
  await expect(page.getByRole('heading', { name: /^(2[7-9]|30) of 30/ })).toBeVisible();
  await expect(page.getByText(/^Never measured. By the calendar its/).first()).toBeVisible();
  await expect(
    page.getByRole('heading', { name: /by the calendar. Nothing has been measured yet./ }),
  ).toBeVisible();
  // Of thirty alike in one room, one run would tell most: on the longest overdue.
  await expect(page.getByText('One run would tell most.')).toBeVisible();
  await page.getByRole('button', { name: 'show', exact: true }).click();
  await expect(page.locator('.rounds-row')).toHaveCount(1);
  await expect(page.getByText(/The longest overdue of 30 machines never measured/)).toBeVisible();

  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/round');
  for (let i = 0; i < 5; i++) {
    await page.getByLabel('Processor, °C').fill(String(72 + i));
    if (i === 0) await page.getByLabel('Air, °C').fill('22,5');
    // The air of the room is not asked twice.
    else await expect(page.getByLabel('Air, °C')).toHaveValue('22.5');
    await page.getByRole('button', { name: 'Keep, and the next one' }).click();
    await expect(page.getByText(`${String(i + 2)} of 30`)).toBeVisible();
  }
  await page.goto('/machines/PC-001');
  await expect(page.getByRole('row', { name: /72/ }).first()).toBeVisible();

  // One more by hand, and one that is there already is not overwritten.
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/halls');
  await page.getByRole('button', { name: 'Add machines' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Tag', { exact: true }).fill('PC-030');
  await dialog.getByLabel('Model').fill('Petrel 9');
  await dialog.getByLabel(/^How many/).fill('3');
  await dialog.getByRole('button', { name: 'Add 3 machines' }).click();
  await expect(dialog.getByRole('alert')).toContainText('1 of these tags is there already');
  await dialog.getByLabel('Tag', { exact: true }).fill('PC-031');
  await dialog.getByRole('button', { name: 'Add 3 machines' }).click();
  await expect(dialog).toBeHidden();
  // The room, put right where it is seen.
  await page.getByRole('button', { name: 'Edit Kartenraum' }).click({ timeout: 15_000 });
  const room = page.getByRole('dialog', { name: 'Edit Kartenraum' });
  await room.getByLabel('Name of the zone').fill('');
  await room.getByRole('button', { name: 'Save' }).click();
  await expect(room.getByText('The name is needed.')).toBeVisible();
  await room.getByLabel('Name of the zone').fill('Chart room');
  await room.getByLabel(/^Warmest air/).fill('26,0');
  await room.getByRole('button', { name: 'Save' }).click();
  await expect(room).toBeHidden();
  await expect(page.getByText(/planned for 26/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Edit Chart room' })).toBeVisible();
  // A zone before its machines, and away with it again.
  await page.getByRole('button', { name: 'Add a zone' }).click();
  const attic = page.getByRole('dialog', { name: 'Add a zone' });
  await attic.getByLabel('Name of the zone').fill('Attic');
  await attic.getByRole('button', { name: 'Save' }).click();
  await expect(attic).toBeHidden();
  await page.getByRole('button', { name: 'Edit Attic' }).click();
  await page.getByRole('button', { name: 'Remove this zone' }).click();
  await expect(page.getByRole('button', { name: 'Edit Attic' })).toBeHidden();
  await page.goto('/machines/PC-033');
  await expect(page.getByText('Petrel 9').first()).toBeVisible();
  // A desktop without a graphics chip to measure.
  await page.getByRole('button', { name: 'Edit', exact: true }).click();
  const edit = page.getByRole('dialog', { name: 'Edit PC-033' });
  await edit.getByRole('button', { name: 'Add a part' }).click();
  await edit.getByLabel('New part').fill('gpu');
  await edit.getByLabel('Limit, °C', { exact: true }).fill('88');
  await edit.getByRole('button', { name: 'Save' }).click();
  await expect(edit).toBeHidden();
  await page.getByRole('button', { name: 'Edit', exact: true }).click();
  await edit.getByRole('button', { name: 'Remove graphics chip' }).click();
  await edit.getByRole('button', { name: 'Save' }).click();
  await expect(edit).toBeHidden();
  await page.getByRole('button', { name: 'Edit', exact: true }).click();
  await expect(edit.getByRole('button', { name: /^Remove / })).toHaveCount(1);
});

/** A desktop under load for two hours on each of four days, a line every twenty seconds, as a German program writes it. */
function log(celsius: number): Buffer {
  const lines = ['Datum;Uhrzeit;Prozessortemperatur [°C];Leistung [W];Raumluft [°C];Lüfter [U/min]'];
  for (const days of [22, 15, 8, 1])
    for (let s = 0; s < 2 * 3600; s += 20) {
      const at = new Date(Date.now() - days * 86_400_000 + s * 1000).toISOString();
      const [y, m, d] = at.slice(0, 10).split('-');
      lines.push(`${d!}.${m!}.${y!};${at.slice(11, 19)};${String(celsius)},${String(s % 3)};105;22,5;1800`);
    }
  return Buffer.from(lines.join('\r\n'));
}

test('a folder of sensor logs becomes judged machines', async ({ page, request }) => {
  test.setTimeout(120_000);
  const table = ['tag;kind;model', 'AK-01;desktop;Auk 3', 'AK-02;desktop;Auk 3'].join('\n');
  const brought = await request.post('/api/v1/fleet/table', {
    data: Buffer.from(table),
    headers: { 'Content-Type': 'text/csv' },
  });
  expect(brought.status()).toBe(200);
  await page.goto('/intake');
  const first = log(71);
  await page.setInputFiles('input[type=file]', [
    { name: 'AK-01_sensors.csv', mimeType: 'text/csv', buffer: first },
    { name: 'AK-02_sensors.csv', mimeType: 'text/csv', buffer: log(84) },
  ]);
  for (const tag of ['AK-01', 'AK-02']) {
    const log = page.getByRole('region', { name: `Log: ${tag}_sensors.csv` });
    await expect(log.getByText(/steady half hours under load/)).toBeVisible();
    await log.getByRole('button', { name: /^Import \d+ readings$/ }).click();
    await expect(log.getByText(/readings imported, 0 already known/)).toBeVisible();
  }
  // The same file again is nothing new, and says so.
  await page.setInputFiles('input[type=file]', [
    { name: 'AK-01_again.csv', mimeType: 'text/csv', buffer: first },
  ]);
  const again = page.getByRole('region', { name: 'Log: AK-01_again.csv' });
  await again.getByRole('button', { name: /^Import \d+ readings$/ }).click();
  await expect(again.getByText(/^Already known: \d+ readings\. Nothing changed\.$/)).toBeVisible();
  await page
    .getByRole('region', { name: 'Log: AK-02_sensors.csv' })
    .getByRole('button', { name: 'To AK-02' })
    .click();
  await expect(page.getByRole('row', { name: /^Processor/ }).first()).toContainText('84');
  await expect(page.getByRole('region', { name: 'Heat path' })).toBeVisible();
});

test('the demo is one click away, on a database of its own', async ({ page, baseURL, server }) => {
  test.setTimeout(120_000);
  server.layDemoBeside();
  await page.goto('/start');
  await page.getByRole('button', { name: 'Open the demo' }).click();
  await expect(page.getByText('Demo data')).toBeVisible({ timeout: 90_000 });
  expect(new URL(page.url()).origin).not.toBe(baseURL);
  await expect(page.getByRole('heading', { name: /of 206 machines need work/ })).toBeVisible({
    timeout: 60_000,
  });
});

test('readings with semicolons and decimal commas are asked about, and taken when told so', async ({
  page,
  request,
}) => {
  await request.post('/api/v1/fleet/table', {
    data: Buffer.from('tag;kind;model\nGU-01;desktop;Gull 2'),
    headers: { 'Content-Type': 'text/csv' },
  });
  await page.goto('/intake');
  const at = new Date().toISOString().slice(0, 16);
  await page.setInputFiles('input[type=file]', {
    name: 'messung.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`time;asset;cpu_c;ambient_c\r\n${at}Z;GU-01;71,5;22,5\r\n`),
  });
  const report = page.getByRole('region', { name: 'messung.csv' });
  await expect(
    report.getByText('Line 1 looks like semicolons with decimal commas: read it so?'),
  ).toBeVisible();
  await report.getByRole('button', { name: 'Read it so' }).click();
  await expect(report.getByText('1 line imported, 0 already known.')).toBeVisible();
});

test('one log of two machines is shown for each of them and taken in one go', async ({ page, request }) => {
  await request.post('/api/v1/fleet/table', {
    data: Buffer.from('tag;kind;model\nTE-01;desktop;Tern 4\nTE-02;desktop;Tern 4'),
    headers: { 'Content-Type': 'text/csv' },
  });
  const lines = ['Time,TE-01 CPU [°C],TE-02 CPU [°C],Room [°C]'];
  for (let s = 0; s < 3600; s += 10)
    lines.push(`${new Date(Date.now() - 86_400_000 + s * 1000).toISOString()},71,84,22`);
  await page.goto('/intake');
  await page.setInputFiles('input[type=file]', {
    name: 'rack.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(lines.join('\n')),
  });
  const log = page.getByRole('region', { name: 'Log: rack.csv' });
  for (const tag of ['TE-01', 'TE-02'])
    await expect(log.getByRole('row', { name: new RegExp(`^${tag} 360 `) })).toBeVisible();
  await log.getByRole('button', { name: /^Import \d readings$/ }).click();
  await expect(log.getByText(/^\d readings imported, 0 already known\.$/)).toBeVisible();
  await page.goto('/machines/TE-02');
  await expect(page.getByText(/median of \d+ samples, spread/).first()).toBeVisible();
});
