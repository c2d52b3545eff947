import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, unwrap } from '../../api/client';
import { NotesTravel } from './NotesTravel';
import { usePageTitle } from '../../ui/usePageTitle';
import { word } from '../../words/word';
import { PlainTable } from '../../ui/PlainTable';
import { Unready } from '../../ui/Unready';

/** The models of the fleet, and of which something is noted. */
export function Models() {
  usePageTitle(t`Models`);
  const models = useQuery({ queryKey: ['models'], queryFn: () => unwrap(api.GET('/api/v1/models')) });
  return (
    <div className="page text-width">
      <h1>{t`Notes on models.`}</h1>
      <p className="quiet">
        {t`How each model comes apart and goes together. A model without notes gets its first ones from the next job on it.`}
      </p>
      <NotesTravel noted={models.data?.some((m) => m.noted) ?? false} />
      {!models.data && <Unready of={[models]} as="part" />}
      {models.data?.length === 0 && <p>{t`No machines yet: bring in a fleet on Intake.`}</p>}
      <PlainTable>
        {models.data?.map((m) => (
          <tr key={m.model}>
            <td>
              <Link to={`/models/${encodeURIComponent(m.model)}`}>{m.model}</Link>
            </td>
            <td className="quiet">{word(m.kind)}</td>
            <td>{plural(m.machines, { one: '# machine', other: '# machines' })}</td>
            <td className="quiet">{m.noted ? t`noted` : t`nothing noted yet`}</td>
          </tr>
        ))}
      </PlainTable>
    </div>
  );
}
