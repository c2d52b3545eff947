import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { PlainTable } from '../../ui/PlainTable';
import { Refusal } from '../../ui/Refusal';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { instant, tenths, whole } from '../../words/format';
import { LayBack } from './LayBack';

/** How often a backup that is being made is looked after, ms. */
const BUSY_POLL = 1_000;

/** The backups of the house: made, looked at, laid back at the next start. */
export function Backups() {
  usePageTitle(t`Backups`);
  const answer = useQuery({
    queryKey: ['backups'],
    queryFn: () => unwrap(api.GET('/api/v1/backups')),
    refetchInterval: (query) => (query.state.data?.busy ? BUSY_POLL : false),
  });
  const [chosen, setChosen] = useState<string | null>(null);
  const make = useWrite(() => unwrap(api.POST('/api/v1/backups')));
  const takeBack = useWrite(() => unwrap(api.DELETE('/api/v1/backups/restore')));
  if (!answer.data) return <Unready of={[answer]} title={t`Backups`} />;
  const { folder, hours, sealed, busy, failure, restoreNext, backups } = answer.data;
  const last = backups.find((b) => b.damage === null);
  const error = make.error ?? takeBack.error;
  return (
    <div className="page broad">
      <p className="quiet no-gap">
        <Link to="/rules">{t`House rules`}</Link>
      </p>
      <h1>{last?.madeAt ? t`The last backup is of ${instant(last.madeAt)}.` : t`There is no backup yet.`}</h1>
      <p className="quiet">
        {hours === 0
          ? t`None is made by itself; into ${folder}.`
          : t`One is made by itself every ${plural(hours, { one: 'hour', other: '# hours' })} while the program runs, into ${folder}.`}{' '}
        {sealed
          ? t`They are sealed: without the passphrase nobody opens them.`
          : t`Each is an ordinary database file. A folder on another disk is safer: Backup__Folder in the program’s environment names it.`}
      </p>
      {failure && <p role="alert">{t`The last one was not made: ${failure}`}</p>}
      {error && <Refusal error={error} />}
      {restoreNext && (
        <p role="status">
          <strong>{t`${restoreNext} is laid back when the program starts next: stop it and start it again.`}</strong>{' '}
          <Button size="small" loading={takeBack.isPending} onClick={() => takeBack.mutate(undefined)}>
            {t`Do not lay it back`}
          </Button>
        </p>
      )}
      <div className="button-row next-heading">
        <Button type="primary" loading={busy || make.isPending} onClick={() => make.mutate(undefined)}>
          {busy ? t`Being made and checked` : t`Make one now`}
        </Button>
      </div>
      <p>
        <a href="/api/v1/backups/house.zip" download>
          {t`Take everything along`}
        </a>{' '}
        <span className="quiet">
          {t`in one ZIP file of open formats: JSON lines, CSV, photos; without passwords and keys. The command import makes an equal house of it.`}
        </span>
      </p>
      {backups.length > 0 && (
        <PlainTable
          head={
            <>
              <th>{t`Made`}</th>
              <th className="num">{t`Size`}</th>
              <th>{t`Holds`}</th>
              <th>{t`State`}</th>
              <th aria-label={t`Lay back`} />
            </>
          }
        >
          {backups.map((b) => (
            <tr key={b.name}>
              <td>{b.madeAt ? instant(b.madeAt) : b.name}</td>
              <td className="num">{b.bytes === null ? '' : t`${tenths(b.bytes / 1_000_000)} MB`}</td>
              <td>{b.contents ? contentsWords(b.contents) : ''}</td>
              <td>{stateWords(b)}</td>
              <td>
                {b.damage === null && (
                  <Button size="small" onClick={() => setChosen(b.name)}>{t`Lay back …`}</Button>
                )}
              </td>
            </tr>
          ))}
        </PlainTable>
      )}
      {chosen !== null && <LayBack name={chosen} onClose={() => setChosen(null)} />}
    </div>
  );
}

function stateWords(backup: Schemas['BackupAnswer']): string {
  if (backup.damage !== null) return t`not whole: ${backup.damage}`;
  return backup.encrypted ? t`sealed, found whole when it was made` : t`found whole when it was made`;
}

/** What a database holds, in a line. */
function contentsWords(c: Schemas['DatabaseContents']): string {
  return [
    plural(c.machines, { one: '# machine', other: '# machines' }),
    t`${whole(c.readings)} readings`,
    plural(c.jobs, { one: '# job', other: '# jobs' }),
    plural(c.photos, { one: '# photo', other: '# photos' }),
  ].join(', ');
}
