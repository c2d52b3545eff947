import { t } from '@lingui/core/macro';
import { Link } from 'react-router';
import { useCampaignsOf } from '../../api/campaigns';
import { STEPS } from '../../words/campaigns';
import { levelName } from '../../words/work';

/** The campaigns that a machine is in, each with how far it is there. */
export function InCampaigns({ tag }: { tag: string }) {
  const campaigns = useCampaignsOf(tag);
  return (campaigns.data ?? []).map((c) => (
    <p key={c.id}>
      <Link to={`/weeks/campaigns/${String(c.id)}`}>{t`Campaign: ${c.name}`}</Link>{' '}
      {c.state === 'paused' ? t`${levelName(c.level)}, paused` : `${levelName(c.level)}, ${STEPS[c.step]}`}
    </p>
  ));
}
