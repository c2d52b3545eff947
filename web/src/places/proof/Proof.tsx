import { t } from '@lingui/core/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Button, Input, Radio } from 'antd';
import { Link, useSearchParams } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { month } from '../../words/format';
import { levelName, PATTERNS } from '../../words/work';
import { Causes } from './Causes';
import { Chances } from './Chances';
import { Dates } from './Dates';
import { headline } from './headline';
import { sidesWords } from './sidesWords';
import { WonTable } from './WonTable';
import { WithoutGain } from './WithoutGain';
import './proof.css';

type WonBy = 'level' | 'model' | 'zone' | 'month' | 'paste' | 'pads' | 'batch' | 'alcohol' | 'pattern';

/** What jobs are grouped by: as a choice, and as the head of a column. */
const GROUPS: readonly [WonBy, string, string][] = [
  ['level', t`by work`, t`work`],
  ['model', t`by model`, t`model`],
  ['zone', t`by zone`, t`zone`],
  ['month', t`by month`, t`month`],
  ['paste', t`by paste`, t`paste`],
  ['pads', t`by pads`, t`pads`],
  ['batch', t`by batch`, t`paste, batch`],
  ['alcohol', t`by alcohol`, t`alcohol`],
  ['pattern', t`by pattern`, t`paste laid on as`],
];

const BY_PRODUCT: readonly WonBy[] = ['paste', 'pads', 'batch', 'alcohol', 'pattern'];

/** What the house's own work has won, with how sure that is, and where it won nothing. */
export function Proof() {
  usePageTitle(t`Proof`);
  const [params, setParams] = useSearchParams();
  const get = (name: string) => params.get(name) ?? '';
  const set = (name: string, value: string) => {
    const next = new URLSearchParams(params);
    if (value) next.set(name, value);
    else next.delete(name);
    setParams(next, { replace: true });
  };
  const by = GROUPS.find(([group]) => group === get('by'))?.[0] ?? 'level';
  const days = {
    ...(get('from') ? { from: get('from') } : {}),
    ...(get('until') ? { until: get('until') } : {}),
  };
  const won = useQuery({
    queryKey: ['proof', by, days],
    // Until the next answer is there the one before is shown, by what it was grouped by.
    queryFn: async () => ({
      by,
      ...(await unwrap(api.GET('/api/v1/proof', { params: { query: { by, ...days } } }))),
    }),
    placeholderData: keepPreviousData,
  });
  if (!won.data) return <Unready of={[won]} />;
  const { all, sides, spent, money, payBackYears, currency, groups, withoutGain, causes } = won.data;
  const compared = all.jobs - all.notCompared;
  return (
    <div className="page broad proof">
      <h1>{headline(all)}</h1>
      <p className="quiet">
        {compared > 0 &&
          t`Mean of the jobs with a run before and after, worse and unchanged ones with them, on the part that won most. ± is twice the standard uncertainty of that mean.`}
        {sidesWords(sides) && <> {sidesWords(sides)}</>}
        {all.jobs === 0 &&
          t`A job that is filed at the bench stands here, with what its runs before and after show.`}
      </p>
      <div className="proof-filters">
        <Radio.Group
          aria-label={t`Grouped`}
          optionType="button"
          buttonStyle="solid"
          value={by}
          onChange={(e) => set('by', e.target.value as string)}
          options={GROUPS.map(([value, label]) => ({ value, label }))}
        />
        {(['from', 'until'] as const).map((name) => (
          <label key={name}>
            {name === 'from' ? t`from` : t`to`}{' '}
            <Input
              type="date"
              value={get(name)}
              onChange={(e) => set(name, e.target.value)}
              style={{ width: 140 }}
            />
          </label>
        ))}
        <a href={`/api/v1/proof.csv?${new URLSearchParams(days).toString()}`} download>
          {t`CSV`}
        </a>
        <Button onClick={() => print()}>{t`Print`}</Button>
        <Link
          to={`/proof/report?${new URLSearchParams(days).toString()}`}
        >{t`One page for whoever pays`}</Link>
      </div>
      {all.jobs > 0 && (
        <WonTable
          head={GROUPS.find(([group]) => group === won.data.by)![2]}
          rows={groups.map((g) => ({ ...g, name: nameOf(won.data.by, g) }))}
          all={{ won: all, spent, money }}
          currency={currency}
          years={payBackYears}
        />
      )}
      {BY_PRODUCT.includes(won.data.by) && groups.reduce((sum, g) => sum + g.won.jobs, 0) < all.jobs && (
        <p className="quiet small">{t`Jobs of which nobody wrote it down stand in the last row alone.`}</p>
      )}
      {withoutGain.length > 0 && <WithoutGain jobs={withoutGain} />}
      {causes.length > 0 && <Causes causes={causes} />}
      {won.data.chances.jobs > 0 && <Chances chances={won.data.chances} />}
      <Dates />
    </div>
  );
}

const nameOf = (by: WonBy, group: Schemas['WonGroupAnswer']): string =>
  by === 'level'
    ? levelName(group.key as Schemas['ServiceLevel'])
    : by === 'month'
      ? month(group.key)
      : by === 'pattern'
        ? PATTERNS[group.key as Schemas['PastePattern']]
        : group.name;
