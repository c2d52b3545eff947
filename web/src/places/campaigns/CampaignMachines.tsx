import { t } from '@lingui/core/macro';
import { Button, Popconfirm } from 'antd';
import { Link } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { PlainTable } from '../../ui/PlainTable';
import { Refusal } from '../../ui/Refusal';
import { STEPS } from '../../words/campaigns';
import { day, instant, kelvin } from '../../words/format';

type Machine = Schemas['CampaignMachineAnswer'];

/** The machines of a campaign in their order, each with how far it is. */
export function CampaignMachines({ campaign: c }: { campaign: Schemas['CampaignAnswer'] }) {
  const remove = useWrite((tag: string) =>
    unwrap(api.DELETE('/api/v1/campaigns/{id}/machines/{tag}', { params: { path: { id: c.id, tag } } })),
  );
  return (
    <section className="page-end" aria-label={t`Machines`}>
      {remove.isError && <Refusal error={remove.error} />}
      <PlainTable
        head={
          <>
            <th>{t`machine`}</th>
            <th>{t`zone`}</th>
            <th>{t`turn`}</th>
            <th>{t`how far`}</th>
            <th className="num">{t`won`}</th>
            <th />
          </>
        }
      >
        {c.machines.map((m) => (
          <tr key={m.tag}>
            <td>
              <Link to={`/machines/${encodeURIComponent(m.tag)}`}>{m.tag}</Link> {m.model}
            </td>
            <td>{m.zone}</td>
            <td>{m.pilot ? t`first` : t`later`}</td>
            <td>
              {m.job === null ? stepWords(m) : <Link to={`/bench/${String(m.job)}`}>{stepWords(m)}</Link>}
            </td>
            <td className="num">{wonWords(m)}</td>
            <td>
              {c.state !== 'ended' && (m.step === 'waits' || m.step === 'released') && (
                <Popconfirm
                  title={t`Take ${m.tag} out of the campaign?`}
                  okText={t`Take it out`}
                  onConfirm={() => remove.mutate(m.tag)}
                >
                  <Button type="link" size="small">
                    {t`take out`}
                  </Button>
                </Popconfirm>
              )}
            </td>
          </tr>
        ))}
      </PlainTable>
      {c.gone > 0 && <p className="quiet small">{t`${c.gone} of its machines are retired meanwhile.`}</p>}
    </section>
  );
}

function stepWords(m: Machine): string {
  switch (m.step) {
    case 'done':
      return t`done ${day(m.done!)}`;
    case 'at-bench':
    case 'waits':
      return STEPS[m.step];
    case 'released':
      return m.planned ? t`planned for ${instant(m.planned)}` : STEPS[m.step];
  }
}

const wonWords = (m: Machine): string =>
  m.wonKelvin !== null && m.expandedKelvin !== null
    ? t`${kelvin(m.wonKelvin)} ± ${kelvin(m.expandedKelvin)}`
    : m.step === 'done'
      ? t`not compared`
      : '';
