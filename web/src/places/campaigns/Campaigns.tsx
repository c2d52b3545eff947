import { plural, t } from '@lingui/core/macro';
import { Button } from 'antd';
import { Link } from 'react-router';
import { useCampaigns } from '../../api/campaigns';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { levelName } from '../../words/work';
import { adviceWords, doneWords } from './campaignWords';

/** All campaigns: the same work on many machines alike. */
export function Campaigns() {
  usePageTitle(t`Campaigns`);
  const answer = useCampaigns();
  if (!answer.data) return <Unready of={[answer]} title={t`Campaigns`} />;
  const { campaigns } = answer.data;
  const open = campaigns.filter((c) => c.state !== 'ended').length;
  return (
    <div className="page text-width">
      <p className="quiet no-gap">
        <Link to="/weeks">{t`Weeks`}</Link>
      </p>
      <h1>
        {open === 0
          ? t`No campaign runs.`
          : plural(open, { one: '# campaign is not ended.', other: '# campaigns are not ended.' })}
      </h1>
      <p className="quiet">
        {t`The same work on many machines alike: a model, a hall, all that got pads of one batch. A few are done first; the others follow if those prove that it is worth it.`}
      </p>
      <div className="button-row next-heading">
        <Link to="/weeks/campaigns/new">
          <Button type="primary">{t`New campaign`}</Button>
        </Link>
      </div>
      {campaigns.map((c) => (
        <section key={c.id} className="ruled" aria-label={c.name}>
          <h2>
            <Link to={`/weeks/campaigns/${String(c.id)}`}>{c.name}</Link>
          </h2>
          <p className="no-gap">
            {levelName(c.level)} · {doneWords(c)}
          </p>
          <p className={c.state === 'ended' ? 'quiet' : undefined}>{adviceWords(c)}</p>
        </section>
      ))}
    </div>
  );
}
