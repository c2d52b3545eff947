import { t } from '@lingui/core/macro';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { PlainTable } from '../../ui/PlainTable';
import { fullDay, kelvin } from '../../words/format';
import { levelName } from '../../words/work';

type Lost = Schemas['LostJobAnswer'];

/** Work that brought nothing, made it worse, or did not last. */
export function WithoutGain({ jobs }: { jobs: readonly Lost[] }) {
  return (
    <section className="section">
      <div className="section-head">
        <h2>{t`Where it won nothing, or did not last`}</h2>
      </div>
      <PlainTable
        head={
          <>
            <th>{t`machine`}</th>
            <th>{t`model`}</th>
            <th>{t`work`}</th>
            <th>{t`done`}</th>
            <th>{t`what came of it`}</th>
            <th />
          </>
        }
      >
        {jobs.map((j) => (
          <tr key={j.id}>
            <td className="figures">
              <Link to={`/machines/${encodeURIComponent(j.asset)}`}>{j.asset}</Link>
            </td>
            <td>{j.model}</td>
            <td>{levelName(j.level)}</td>
            <td>{fullDay(j.done)}</td>
            <td>{outcome(j)}</td>
            <td>
              <Link to={`/bench/${String(j.id)}`}>{t`job ${j.id}`}</Link>
            </td>
          </tr>
        ))}
      </PlainTable>
    </section>
  );
}

function outcome(j: Lost): string {
  const [won, within] = [kelvin(Math.abs(j.wonKelvin)), kelvin(j.expandedKelvin)];
  const said =
    j.outcome === 'improved'
      ? t`cooler by ${won} ± ${within}`
      : j.outcome === 'worse'
        ? t`worse`
        : j.outcome === 'no-change'
          ? t`no change beyond ${within}`
          : t`not compared`;
  return j.cameBack ? t`${said}; the machine came back` : said;
}
