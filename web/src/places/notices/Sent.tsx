import { plural, t } from '@lingui/core/macro';
import { Button } from 'antd';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { PlainTable } from '../../ui/PlainTable';
import { Refusal } from '../../ui/Refusal';
import { instant } from '../../words/format';
import { say } from '../../words/message';
import { DELIVERY_STATES } from '../../words/notices';

/** The newest mails and calls, each with how it went. */
export function Sent({
  deliveries,
  names,
}: {
  deliveries: readonly Schemas['DeliveryAnswer'][];
  names: ReadonlyMap<string, string>;
}) {
  const again = useWrite((id: number) =>
    unwrap(api.POST('/api/v1/notices/sent/{id}/again', { params: { path: { id } } })),
  );
  return (
    <>
      <h2 className="next-heading">{t`Mails and calls`}</h2>
      {again.error && <Refusal error={again.error} />}
      {deliveries.length === 0 ? (
        <p className="quiet">{t`Nothing was sent yet.`}</p>
      ) : (
        <PlainTable
          head={
            <>
              <th>{t`When`}</th>
              <th>{t`To`}</th>
              <th>{t`What`}</th>
              <th>{t`How it went`}</th>
            </>
          }
        >
          {deliveries.map((d) => (
            <tr key={d.id}>
              <td>{instant(d.madeAt)}</td>
              <td>{names.get(d.person) ?? d.person}</td>
              <td>{whatWords(d)}</td>
              <td>
                {DELIVERY_STATES[d.state]}
                {d.attempts > 1 && `, ${plural(d.attempts, { one: '# attempt', other: '# attempts' })}`}
                {d.says && <span className="block small">{say(d.says)}</span>}
                {d.state === 'waits' && d.nextAt && (
                  <span className="block small">{t`next attempt ${instant(d.nextAt)}`}</span>
                )}
                {d.state === 'given-up' && (
                  <Button
                    size="small"
                    type="link"
                    loading={again.isPending}
                    onClick={() => again.mutate(d.id)}
                  >{t`try again`}</Button>
                )}
              </td>
            </tr>
          ))}
        </PlainTable>
      )}
    </>
  );
}

function whatWords(d: Schemas['DeliveryAnswer']): string {
  const count = plural(d.notices, { one: '# notice', other: '# notices' });
  if (d.channel === 'mail') return d.notices === 0 ? t`a mail to try it` : t`a mail with ${count}`;
  return d.notices === 0 ? t`a call to try it` : t`a call with ${count}`;
}
