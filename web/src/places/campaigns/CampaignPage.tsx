import { t } from '@lingui/core/macro';
import { Button, Form, Input } from 'antd';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useCampaign } from '../../api/campaigns';
import { api, unwrap } from '../../api/client';
import { useWrite } from '../../api/queries';
import { AskReason } from '../../ui/AskReason';
import { EditDialog, needed } from '../../ui/EditDialog';
import { Refusal } from '../../ui/Refusal';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { fullDay, kelvin } from '../../words/format';
import { levelName } from '../../words/work';
import { download } from '../../words/csv';
import { AddMachines } from './AddMachines';
import { campaignCsv } from './campaignCsv';
import { CampaignMachines } from './CampaignMachines';
import { adviceWords, doneWords, ruleWords, sumWords } from './campaignWords';
import { Evidence } from './Evidence';
import '../../ui/paper/paper.css';
import './campaigns.css';

/** So many machines a list is asked for at most. */
const MOST = 200;

const listOf = (name: string, tags: readonly string[]): string =>
  new URLSearchParams(tags.slice(0, MOST).map((tag) => [name, tag])).toString();

/** One campaign: how far it is, what it has proven, and what to do about it. */
export function CampaignPage() {
  const id = Number(useParams()['id']);
  const campaign = useCampaign(id);
  const [ending, setEnding] = useState(false);
  const [goingOn, setGoingOn] = useState(false);
  const [adding, setAdding] = useState(false);
  usePageTitle(campaign.data?.name ?? t`Campaign`);
  const path = { params: { path: { id } } };
  const pause = useWrite((paused: boolean) =>
    unwrap(
      paused
        ? api.POST('/api/v1/campaigns/{id}/pause', path)
        : api.POST('/api/v1/campaigns/{id}/resume', path),
    ),
  );
  const end = useWrite((because: string) =>
    unwrap(api.POST('/api/v1/campaigns/{id}/end', { ...path, body: { because } })),
  );
  const goOn = useWrite(({ by }: { by: string }) =>
    unwrap(api.POST('/api/v1/campaigns/{id}/go-on', { ...path, body: { by } })),
  );
  if (!campaign.data) return <Unready of={[campaign]} missing={t`campaign ${String(id)}`} />;
  const c = campaign.data;
  const left = c.machines.filter((m) => m.step !== 'done').map((m) => m.tag);
  const released = c.machines.filter((m) => m.step === 'released').map((m) => m.tag);
  const decided = c.goneOnBy !== null || c.advice === 'go-on' || c.advice === 'all-done';
  return (
    <div className="page text-width">
      <p className="quiet no-gap">
        <Link to="/weeks/campaigns">{t`Campaigns`}</Link>
      </p>
      <h1>{t`${c.name}: ${doneWords(c)}.`}</h1>
      <p className="quiet">
        {[
          levelName(c.level),
          t`begun ${fullDay(c.begun)}`,
          c.dueBy ? t`to be done by ${fullDay(c.dueBy)}` : null,
        ]
          .filter(Boolean)
          .join(' · ')}
      </p>
      {pause.isError && <Refusal error={pause.error} />}
      <p className="heavy">{adviceWords(c)}</p>
      <p>
        {c.won.meanKelvin === null || c.won.expandedKelvin === null
          ? t`Nothing is proven yet: it takes a run before and a run after.`
          : t`Won ${kelvin(c.won.meanKelvin)} ± ${kelvin(c.won.expandedKelvin)} in the mean of ${c.won.jobs - c.won.notCompared} compared. Worth it from ${kelvin(c.leastKelvin)}.`}
      </p>
      <Evidence evidence={c.evidence} />
      <p className="quiet small">{ruleWords(c)}</p>
      {c.left.machines > 0 && c.state !== 'ended' && <p>{t`Still to do: ${sumWords(c.left)}`}</p>}
      {c.state !== 'ended' && (
        <div className="button-row next-heading no-print">
          {released.length > 0 && (
            <Link to={`/bring?${listOf('asset', released)}`}>
              <Button>{t`What to bring`}</Button>
            </Link>
          )}
          {(c.level === 'repad' || c.level === 'other-pads') && left.length > 0 && (
            <Link to={`/stores?${listOf('cut', left)}`}>
              <Button>{t`Cut its pads`}</Button>
            </Link>
          )}
          <Button loading={pause.isPending} onClick={() => pause.mutate(c.state !== 'paused')}>
            {c.state === 'paused' ? t`Let it run again` : t`Pause`}
          </Button>
          {!decided && <Button onClick={() => setGoingOn(true)}>{t`Go on with all …`}</Button>}
          <Button onClick={() => setAdding(true)}>{t`More machines …`}</Button>
          <Button onClick={() => setEnding(true)}>{t`End …`}</Button>
        </div>
      )}
      <div className="button-row no-print apart-small">
        <Button
          onClick={() => download(`campaign-${String(c.id)}.csv`, campaignCsv(c))}
        >{t`Export CSV`}</Button>
        <Button onClick={() => print()}>{t`Print`}</Button>
      </div>
      {adding && <AddMachines campaign={c} onClose={() => setAdding(false)} />}
      <CampaignMachines campaign={c} />
      {ending && (
        <AskReason
          title={t`End ${c.name}`}
          text={t`None of its machines is planned for it any more. What it has proven stays.`}
          confirm={t`End it`}
          busy={end.isPending}
          onClose={() => setEnding(false)}
          onReason={(reason) => end.mutateAsync(reason)}
        />
      )}
      {goingOn && (
        <EditDialog<{ by: string }>
          title={t`Go on with all machines`}
          initial={{ by: localStorage.getItem('pyrometron.name') ?? '' }}
          write={goOn}
          onClose={() => setGoingOn(false)}
        >
          <p>{t`The proof does not say so yet. Who decides it is kept with the campaign.`}</p>
          <Form.Item name="by" label={t`Who decides it`} rules={needed(t`A name`)}>
            <Input maxLength={80} />
          </Form.Item>
        </EditDialog>
      )}
    </div>
  );
}
