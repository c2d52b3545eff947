import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { PlainTable } from '../../ui/PlainTable';
import { Refusal } from '../../ui/Refusal';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { shortDevice } from '../../words/device';
import { instant, listed, tenths, whole } from '../../words/format';
import { attention } from './attention';
import { EraseName } from './EraseName';
import { growthOf } from './growth';
import { Licences } from './Licences';

type House = Schemas['HousekeepingAnswer'];

const megabytes = (bytes: number) => t`${tenths(bytes / 1_000_000)} MB`;

const gigabytes = (bytes: number) => t`${tenths(bytes / 1_000_000_000)} GB`;

/** The house as whoever keeps it looks after it: who comes in, what is kept, how large it is, what runs. */
export function Housekeeping() {
  usePageTitle(t`Housekeeping`);
  const answer = useQuery({
    queryKey: ['housekeeping'],
    queryFn: () => unwrap(api.GET('/api/v1/housekeeping')),
  });
  const [erasing, setErasing] = useState(false);
  if (!answer.data) return <Unready of={[answer]} title={t`Housekeeping`} />;
  const house = answer.data;
  const wrong = attention(house, new Date());
  return (
    <div className="page broad">
      <p className="quiet no-gap">
        <Link to="/rules">{t`House rules`}</Link>
      </p>
      <h1>
        {wrong.length === 0
          ? t`Nothing asks for you.`
          : plural(wrong.length, { one: 'One thing asks for you.', other: '# things ask for you.' })}
      </h1>
      {wrong.length > 0 && (
        <ul>
          {wrong.map((w) => (
            <li key={w.says}>
              {w.says} {w.to && <Link to={w.to}>{w.go}</Link>}
            </li>
          ))}
        </ul>
      )}
      <PlainTable>
        <People house={house} />
        <Row title={t`Backups`} to="/rules/backups" go={t`Backups`}>
          {house.backups.lastGood
            ? t`${plural(house.backups.all, { one: '# backup', other: '# backups' })}, ${megabytes(house.backups.bytes)} in all; the last good one is of ${instant(house.backups.lastGood)}.`
            : t`None yet.`}
        </Row>
        <Sizes house={house} />
        <Versions versions={house.versions} />
      </PlainTable>
      <div className="button-row next-heading">
        <Button onClick={() => setErasing(true)}>{t`Erase a name …`}</Button>
      </div>
      {erasing && <EraseName onClose={() => setErasing(false)} />}
      {house.people && <Browsers browsers={house.browsers} />}
      <Licences />
    </div>
  );
}

function Row({ title, to, go, children }: { title: string; to?: string; go?: string; children: ReactNode }) {
  return (
    <tr>
      <th scope="row" style={{ width: 150 }}>
        {title}
      </th>
      <td>
        {children} {to && <Link to={to}>{go}</Link>}
      </td>
    </tr>
  );
}

function People({ house: { people, keys, browsers } }: { house: House }) {
  if (!people || !keys)
    return (
      <Row title={t`People`} to="/rules/accounts" go={t`Accounts`}>
        {t`One person at this machine: nobody has to sign in.`}
      </Row>
    );
  const said = [
    people.waiting > 0 &&
      plural(people.waiting, { one: '# has not come in yet', other: '# have not come in yet' }),
    people.suspended > 0 && plural(people.suspended, { one: '# is suspended', other: '# are suspended' }),
    people.passwordOnly > 0 &&
      plural(people.passwordOnly, {
        one: '# comes in by a password alone',
        other: '# come in by a password alone',
      }),
  ].filter((s) => s !== false);
  return (
    <>
      <Row title={t`People`} to="/rules/accounts" go={t`Accounts`}>
        {plural(people.all, { one: '# person has an account', other: '# people have an account' })}
        {said.length > 0 && t`: ${listed(said)}`}
        {'. '}
        {plural(browsers.length, { one: '# browser is signed in.', other: '# browsers are signed in.' })}
      </Row>
      <Row title={t`Keys`} to="/rules/accounts" go={t`Keys of programs`}>
        {keys.all === 0
          ? t`No program has a key.`
          : plural(keys.all, { one: '# program has a key.', other: '# programs have a key.' })}{' '}
        {keys.unused > 0 && plural(keys.unused, { one: '# was never used.', other: '# were never used.' })}
      </Row>
    </>
  );
}

function Sizes({ house: { size, days, freeBytes } }: { house: House }) {
  const growth = growthOf(days, freeBytes);
  return (
    <>
      <Row title={t`Size`}>
        {t`The database is ${megabytes(size.databaseBytes)} large, ${megabytes(size.photoBytes)} of it photos: ${whole(size.readings)} readings, ${plural(size.photos, { one: '# photo', other: '# photos' })}, ${whole(size.changes)} lines of the log. ${gigabytes(freeBytes)} of the disk are free.`}
      </Row>
      <Row title={t`Growth`}>
        {growth === null
          ? t`Told when the program has run on two days that are a week apart.`
          : growth.monthsLeft === null
            ? t`It has not grown in the last ${plural(growth.days, { one: 'day', other: '# days' })}.`
            : t`${megabytes(growth.bytes)} and ${whole(growth.readings)} readings in the last ${plural(growth.days, { one: 'day', other: '# days' })}. ${roomWords(growth.monthsLeft)}`}
      </Row>
    </>
  );
}

function roomWords(months: number): string {
  if (months > 120) return t`At that pace the disk lasts for more than ten years.`;
  if (months >= 1)
    return t`At that pace the disk is full in ${plural(Math.round(months), { one: '# month', other: '# months' })}.`;
  return t`At that pace the disk is full within a month.`;
}

function Versions({ versions: v }: { versions: Schemas['Versions'] }) {
  return (
    <Row title={t`What runs`}>
      {t`Pyrometron ${v.program} on ${v.runtime}, SQLite ${v.sqlite}, tables of version ${v.schema}; ${v.system}. Running since ${instant(v.startedAt)}.`}{' '}
      {v.solver
        ? t`The solver makes the plans.`
        : t`The solver’s library does not load here: plans are made by urgency, each into the first free time.`}
    </Row>
  );
}

/** Every browser that is signed in, whosoever it is. */
function Browsers({ browsers }: { browsers: readonly Schemas['SignedInBrowser'][] }) {
  const end = useWrite((id: number) =>
    unwrap(api.DELETE('/api/v1/housekeeping/browsers/{id}', { params: { path: { id } } })),
  );
  return (
    <>
      <h2 className="next-heading">{t`Who is signed in`}</h2>
      {end.error && <Refusal error={end.error} />}
      <PlainTable
        head={
          <>
            <th>{t`Who`}</th>
            <th>{t`Browser`}</th>
            <th>{t`Signed in`}</th>
            <th>{t`Last at work`}</th>
            <th>{t`From`}</th>
            <th aria-label={t`Sign out`} />
          </>
        }
      >
        {browsers.map((b) => (
          <tr key={b.id}>
            <td translate="no">{b.name}</td>
            <td translate="no" title={b.device}>
              {shortDevice(b.device)}
            </td>
            <td>{instant(b.begunAt)}</td>
            <td>{b.here ? t`now, this one` : instant(b.seenAt)}</td>
            <td translate="no">{b.address}</td>
            <td>{!b.here && <Button size="small" onClick={() => end.mutate(b.id)}>{t`Sign out`}</Button>}</td>
          </tr>
        ))}
      </PlainTable>
    </>
  );
}
