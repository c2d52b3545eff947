import ICAL from 'ical.js';
import { expect, test, type Server } from './server.js';

// The plan as calendars read it: parsed by a library of others, not by the one that wrote it.
test.use({ demo: true, file: 'calendar' });

interface Planned {
  id: string;
  person: string;
  start: string;
  minutes: number;
  zone: string;
  help: { person: string } | null;
}

async function eventsOf(server: Server, query = ''): Promise<ICAL.Event[]> {
  const answer = await fetch(`${server.url}/api/v1/calendar.ics${query}`);
  expect(answer.headers.get('content-type')).toContain('text/calendar');
  const calendar = new ICAL.Component(ICAL.parse(await answer.text()) as unknown[]);
  for (const zone of calendar.getAllSubcomponents('vtimezone'))
    ICAL.TimezoneService.register(new ICAL.Timezone(zone));
  return calendar.getAllSubcomponents('vevent').map((event) => new ICAL.Event(event));
}

const uid = (event: ICAL.Event): string => event.uid;

test('each job of the plan stands in the calendar at its time, once', async ({ server }) => {
  const weeks = (await (await fetch(`${server.url}/api/v1/weeks`)).json()) as { plan: { jobs: Planned[] } };
  const { jobs } = weeks.plan;
  expect(jobs.length).toBeGreaterThan(5);
  const all = await eventsOf(server);
  expect(new Set(all.map(uid)).size).toBe(all.length);
  for (const job of jobs) {
    const event = all.find((e) => e.uid === `${job.id}-planned@pyrometron`);
    expect(event, job.id).toBeDefined();
    expect(event!.startDate.toJSDate().toISOString()).toBe(new Date(job.start).toISOString());
    expect(event!.endDate.toJSDate().getTime() - event!.startDate.toJSDate().getTime()).toBe(
      job.minutes * 60_000,
    );
  }
  // Due days are whole days.
  expect(all.some((e) => e.startDate.isDate)).toBe(true);

  const of = (jobs: Planned[], id: (job: Planned) => string) => jobs.map((j) => `${id(j)}@pyrometron`).sort();
  const standing = (events: ICAL.Event[]) =>
    events.filter((e) => !e.startDate.isDate && e.component.getFirstPropertyValue('status') !== 'CANCELLED');
  const tomas = standing(await eventsOf(server, '?person=tomas'));
  expect(tomas.map(uid).sort()).toEqual(
    of(
      jobs.filter((j) => j.person === 'tomas' || j.help?.person === 'tomas'),
      (j) => `${j.id}-tomas`,
    ),
  );
  const boats = standing(await eventsOf(server, '?zone=BOAT'));
  expect(boats.map(uid).sort()).toEqual(
    of(
      jobs.filter((j) => j.zone === 'BOAT'),
      (j) => `${j.id}-planned`,
    ),
  );
});

test('what is taken out of the plan is cancelled under the same name and a higher number', async ({
  server,
}) => {
  const read = async () =>
    (await (await fetch(`${server.url}/api/v1/weeks`)).json()) as { plan: { id: number; jobs: Planned[] } };
  const { plan } = await read();
  const later = plan.jobs.filter((j) => new Date(j.start) > new Date());
  const job = later[later.length - 1]!;
  const before = (await eventsOf(server)).find((e) => e.uid === `${job.id}-planned@pyrometron`)!;
  const answer = await fetch(`${server.url}/api/v1/weeks/jobs/${encodeURIComponent(job.id)}/leave-out`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ seen: plan.id }),
  });
  expect(answer.status, await answer.text()).toBeLessThan(300);
  const after = (await eventsOf(server)).find((e) => e.uid === before.uid)!;
  expect(after.component.getFirstPropertyValue('status')).toBe('CANCELLED');
  expect(after.sequence).toBeGreaterThan(before.sequence);
});

test('the page gives the address of each calendar', async ({ page, server }) => {
  await page.goto('/weeks');
  await page.getByRole('button', { name: 'Calendar', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Address')).toHaveValue(`${server.url}/api/v1/calendar.ics`);
  await dialog.getByLabel('Whose').click();
  await page.getByTitle('Boat store: plan and due days').click();
  await expect(dialog.getByLabel('Address')).toHaveValue(`${server.url}/api/v1/calendar.ics?zone=BOAT`);
  await expect(dialog.getByRole('link', { name: 'Download' })).toHaveAttribute(
    'href',
    '/api/v1/calendar.ics?zone=BOAT',
  );
});
