import { t } from '@lingui/core/macro';
import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { useCampaignPreview } from '../../api/campaigns';
import { api, unwrap, type Schemas } from '../../api/client';
import { useQueue, useWrite } from '../../api/queries';
import { NumberField } from '../../ui/NumberField';
import { Refusal } from '../../ui/Refusal';
import { usePageTitle } from '../../ui/usePageTitle';
import { kelvin } from '../../words/format';
import { levelChoices, LEVELS } from '../../words/work';
import { PreviewTable } from './PreviewTable';
import { sumWords } from './campaignWords';
import './campaigns.css';

const choices = (values: readonly string[]) => [
  { value: '', label: t`any` },
  ...[...new Set(values)].sort().map((value) => ({ value, label: value })),
];

/** A campaign that somebody thinks of: which machines, what it takes, what is left out. */
export function NewCampaign() {
  usePageTitle(t`New campaign`);
  const navigate = useNavigate();
  const [params] = useSearchParams();
  const queue = useQueue();
  const listed = params.getAll('asset');
  const [draft, setDraft] = useState<Required<Schemas['CampaignDraft']>>({
    name: params.get('name') ?? '',
    level: 'dust-out',
    model: params.get('model'),
    zone: params.get('zone'),
    assets: listed.length > 0 ? listed : null,
    pilot: 5,
    leastKelvin: 3,
    dueBy: null,
  });
  const change = (some: Partial<typeof draft>) => setDraft({ ...draft, ...some });
  const asked = draft.assets !== null || draft.model !== null || draft.zone !== null;
  // The name changes nothing of what it would be.
  const preview = useCampaignPreview(asked ? { ...draft, name: null } : null);
  const begin = useWrite(() => unwrap(api.POST('/api/v1/campaigns', { body: draft })));
  const items = queue.data?.items ?? [];
  const shown = asked ? preview.data : undefined;
  return (
    <div className="page text-width">
      <p className="quiet no-gap">
        <Link to="/weeks/campaigns">{t`Campaigns`}</Link>
      </p>
      <h1>{t`New campaign`}</h1>
      {begin.isError && <Refusal error={begin.error} />}
      <div className="campaign-form">
        <label className="wide">
          {t`What it is called`}
          <Input value={draft.name ?? ''} maxLength={80} onChange={(e) => change({ name: e.target.value })} />
        </label>
        <label>
          {t`What is done`}
          <Select
            aria-label={t`What is done`}
            value={draft.level}
            onChange={(level: string) => change({ level })}
            options={levelChoices(LEVELS.filter((level) => level !== 'inspect'))}
          />
        </label>
        {draft.assets === null ? (
          <>
            <label>
              {t`Model`}
              <Select
                aria-label={t`Model`}
                showSearch={{ optionFilterProp: 'label' }}
                value={draft.model ?? ''}
                onChange={(model: string) => change({ model: model || null })}
                options={choices(items.map((i) => i.model))}
              />
            </label>
            <label>
              {t`Zone`}
              <Select
                aria-label={t`Zone`}
                showSearch={{ optionFilterProp: 'label' }}
                value={draft.zone ?? ''}
                onChange={(zone: string) => change({ zone: zone || null })}
                options={choices(items.map((i) => i.zone))}
              />
            </label>
          </>
        ) : (
          <p className="wide no-gap">{t`The machines that were chosen: ${draft.assets.join(', ')}`}</p>
        )}
        <label>
          {t`Done first`}
          <NumberField
            aria-label={t`Done first`}
            min={1}
            max={50}
            inputMode="numeric"
            value={draft.pilot}
            onChange={(pilot) => change({ pilot })}
          />
        </label>
        <label>
          {t`Worth it from, K`}
          <NumberField
            aria-label={t`Worth it from, K`}
            min={0.1}
            max={30}
            value={draft.leastKelvin}
            onChange={(leastKelvin) => change({ leastKelvin })}
          />
        </label>
        <label>
          {t`Done by`}
          <Input
            type="date"
            value={draft.dueBy ?? ''}
            onChange={(e) => change({ dueBy: e.target.value || null })}
          />
        </label>
      </div>
      {!asked && <p className="quiet">{t`Choose a model or a zone, and what it takes is shown here.`}</p>}
      {asked && preview.isError && <Refusal error={preview.error} />}
      {shown && (
        <section aria-label={t`What it takes`}>
          <h2>{t`What it takes`}</h2>
          <p>{sumWords(shown.sum)}</p>
          <p>{predictedWords(shown, draft.leastKelvin)}</p>
          <p className="quiet small">
            {shown.scatterJobs > 0
              ? t`Wins of this work differ by ${kelvin(shown.scatter)} from machine to machine, by ${shown.scatterJobs} jobs of the house.`
              : t`How much wins of this work differ from machine to machine is not known here yet: ${kelvin(shown.scatter)} is taken.`}{' '}
            {t`Those done first are spread over machines with much and with little to win, so that they speak for all.`}
          </p>
          <Button
            type="primary"
            className="next-heading"
            disabled={!draft.name?.trim() || shown.machines.length < 2}
            loading={begin.isPending}
            onClick={() =>
              void begin.mutateAsync(undefined).then(
                ({ id }) => navigate(`/weeks/campaigns/${String(id)}`),
                () => undefined,
              )
            }
          >
            {t`Begin`}
          </Button>
          {shown.machines.length < 2 && <p>{t`A campaign is for two machines at least.`}</p>}
          <PreviewTable preview={shown} />
        </section>
      )}
    </div>
  );
}

/** What the judgement predicts that it wins, held against what makes it worth it. */
function predictedWords(preview: Schemas['CampaignPreview'], least: number | null): string {
  const known = preview.machines.map((m) => m.predictedKelvin).filter((k) => k !== null);
  if (known.length === 0) return t`What it wins is not predicted: none of these machines is measured.`;
  const mean = known.reduce((sum, k) => sum + k, 0) / known.length;
  return least !== null && mean < least
    ? t`By the judgement it wins ${kelvin(mean)} in the mean of the ${known.length} measured: less than makes it worth it.`
    : t`By the judgement it wins ${kelvin(mean)} in the mean of the ${known.length} measured.`;
}
