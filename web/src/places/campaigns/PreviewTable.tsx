import { t } from '@lingui/core/macro';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { PlainTable } from '../../ui/PlainTable';
import { kelvin, minutes } from '../../words/format';
import { say } from '../../words/message';
import { machinesWords } from './campaignWords';

/** The machines that a campaign would take, in their order, and those that it would not. */
export function PreviewTable({ preview }: { preview: Schemas['CampaignPreview'] }) {
  return (
    <>
      <PlainTable
        head={
          <>
            <th>{t`machine`}</th>
            <th>{t`zone`}</th>
            <th className="num">{t`predicted win`}</th>
            <th className="num">{t`time`}</th>
            <th>{t`turn`}</th>
          </>
        }
      >
        {preview.machines.map((m) => (
          <tr key={m.tag}>
            <td>
              <Link to={`/machines/${encodeURIComponent(m.tag)}`}>{m.tag}</Link> {m.model}
            </td>
            <td>{m.zone}</td>
            <td className="num">{m.predictedKelvin === null ? t`not known` : kelvin(m.predictedKelvin)}</td>
            <td className="num">{minutes(m.minutes)}</td>
            <td>{m.pilot ? t`first` : t`later`}</td>
          </tr>
        ))}
      </PlainTable>
      {preview.without.length > 0 && (
        <details className="apart">
          <summary>{t`Left out: ${machinesWords(preview.without.length)}`}</summary>
          <ul>
            {preview.without.map((w) => (
              <li key={w.tag}>
                {w.tag}: {say(w.says)}
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
