import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { PlainTable } from '../../ui/PlainTable';
import { Refusal } from '../../ui/Refusal';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { fullDay, instant } from '../../words/format';
import { say } from '../../words/message';
import { word } from '../../words/word';

/** What an owner sees: their machines, what was done to them, and what they are asked. */
export function OwnMachines() {
  usePageTitle(t`Your machines`);
  const own = useQuery({
    queryKey: ['own'],
    queryFn: () => unwrap(api.GET('/api/v1/own/machines')),
  });
  const agree = useWrite(({ id, mayOpen }: { id: number; mayOpen: boolean }) =>
    unwrap(api.POST('/api/v1/own/jobs/{id}/order', { params: { path: { id } }, body: { mayOpen } })),
  );
  if (!own.data) return <Unready of={[own]} title={t`Your machines`} />;
  return (
    <div className="page broad">
      <h1>
        {plural(own.data.length, {
          one: 'One machine here is yours.',
          other: '# machines here are yours.',
        })}
      </h1>
      {agree.isError && <Refusal error={agree.error} />}
      {own.data.map((m) => (
        <section key={m.asset}>
          <h2 className="next-heading" translate="no">
            {m.asset} · {m.model}
          </h2>
          <p className="quiet">{state(m)}</p>
          {m.jobs.length > 0 && (
            <PlainTable
              head={
                <>
                  <th>{t`Begun`}</th>
                  <th>{t`Work`}</th>
                  <th>{t`What was measured`}</th>
                  <th>{t`May it be opened?`}</th>
                </>
              }
            >
              {m.jobs.map((j) => (
                <tr key={j.id}>
                  <td>{instant(j.startedAt)}</td>
                  <td>
                    {word(j.level)}, {j.filedAt === null ? t`going on` : t`done ${instant(j.filedAt)}`}
                  </td>
                  <td>{j.says ? say(j.says) : t`nothing yet`}</td>
                  <td>
                    {j.state === 'open' && j.filedAt === null ? (
                      <span className="button-row">
                        {j.mayOpen === null ? '' : j.mayOpen ? t`You said yes.` : t`You said no.`}
                        {j.mayOpen !== true && (
                          <Button size="small" onClick={() => agree.mutate({ id: j.id, mayOpen: true })}>
                            {t`Yes`}
                          </Button>
                        )}
                        {j.mayOpen !== false && (
                          <Button size="small" onClick={() => agree.mutate({ id: j.id, mayOpen: false })}>
                            {t`No`}
                          </Button>
                        )}
                      </span>
                    ) : null}
                  </td>
                </tr>
              ))}
            </PlainTable>
          )}
        </section>
      ))}
      {own.data.length > 0 && (
        <div className="button-row next-heading">
          <Button onClick={() => window.print()}>{t`Print`}</Button>
        </div>
      )}
    </div>
  );
}

function state(m: Schemas['OwnMachineAnswer']): string {
  const last =
    m.lastService === null ? t`No service is known.` : t`The last service was on ${fullDay(m.lastService)}.`;
  if (m.urgency === null) return t`It is being judged. ${last}`;
  if (m.advised === null) return t`Nothing is advised at present. ${last}`;
  return t`Advised: ${word(m.advised)}, ${word(m.urgency)}. ${last}`;
}
