import { plural, t } from '@lingui/core/macro';
import { Link, useSearchParams } from 'react-router';
import { useBring } from '../../api/stores';
import { BRING } from '../../words/bring';
import '../../ui/paper/paper.css';
import '../../ui/work.css';
import { OffTheShelf } from '../../ui/OffTheShelf';
import { SheetHead } from '../../ui/paper/SheetHead';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { missingWords } from '../../words/amounts';
import { levelName } from '../../words/work';

/** What to bring to some machines, in one list, and what each of them is for. */
export function Bring() {
  usePageTitle(t`What to bring`);
  const [params] = useSearchParams();
  const tags = params.getAll('asset');
  const bring = useBring(tags);
  if (tags.length === 0)
    return (
      <div className="page">
        <h1>{t`No machine is chosen.`}</h1>
        <p>
          <Link to="/">{t`Choose some on Rounds`}</Link>
        </p>
      </div>
    );
  if (!bring.data) return <Unready of={[bring]} title={t`What to bring`} />;
  const { jobs } = bring.data;
  const without = tags.filter((tag) => !jobs.some((j) => j.asset === tag));
  const usual = [...new Set(jobs.flatMap((j) => BRING[j.level] ?? []))];
  return (
    <div className="sheet">
      <SheetHead
        place={`/bring?${new URLSearchParams(tags.map((tag) => ['asset', tag])).toString()}`}
        backTo="/"
        back={t`Back to Rounds`}
        code={t`QR code of this list`}
        title={t`What to bring to ${plural(tags.length, { one: '# machine', other: '# machines' })}`}
      >
        {without.length > 0 && (
          <p className="quiet">{t`No work is advised on ${without.join(', ')}: nothing is taken for it.`}</p>
        )}
      </SheetHead>
      <section className="sheet-stage">
        <h2>{t`Off the shelf`}</h2>
        <OffTheShelf bring={bring.data} />
      </section>
      {usual.length > 0 && (
        <section className="sheet-stage">
          <h2>{t`Besides`}</h2>
          <ul className="bring-list">
            {usual.map((what) => (
              <li key={what}>
                <span className="sheet-box small-box" /> {what}
              </li>
            ))}
          </ul>
        </section>
      )}
      <section className="sheet-stage">
        <h2>{t`What for`}</h2>
        {jobs.map((j) => (
          <p key={j.asset} className="no-gap">
            <span className="figures">{j.asset}</span> {levelName(j.level)}
            {j.missing.length > 0 && ` · ${t`waits for ${j.missing.map(missingWords).join(', ')}`}`}
          </p>
        ))}
      </section>
    </div>
  );
}
