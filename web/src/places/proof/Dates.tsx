import { plural, t } from '@lingui/core/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Radio } from 'antd';
import { useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { Refusal } from '../../ui/Refusal';
import { fullDay, tenths } from '../../words/format';
import { ChanceTable } from './Chances';

const DAYS_AGO = [30, 90, 180, 365] as const;

/** While an earlier day is being judged it is asked for again so often, ms. */
const AGAIN = 3000;

/** Whether the dates at which machines were said to reach their action line have held. */
export function Dates() {
  const [days, setDays] = useState<number>(90);
  const dates = useQuery({
    queryKey: ['proof-dates', days],
    queryFn: () => unwrap(api.GET('/api/v1/proof/dates', { params: { query: { days } } })),
    placeholderData: keepPreviousData,
    refetchInterval: (query) => (query.state.data && query.state.data.dates === null ? AGAIN : false),
  });
  const known = dates.data?.dates ?? null;
  return (
    <section className="section" aria-labelledby="dates-held">
      <div className="section-head">
        <h2 id="dates-held">{t`The dates that were stated, and what came`}</h2>
      </div>
      <p>
        <Radio.Group
          aria-label={t`How long ago`}
          value={days}
          onChange={(e) => setDays(e.target.value as number)}
          options={DAYS_AGO.map((d) => ({
            value: d,
            label: plural(d, { one: '# day ago', other: '# days ago' }),
          }))}
        />
      </p>
      {dates.isError && <Refusal error={dates.error} retry={() => void dates.refetch()} />}
      {!known && !dates.isError && (
        <p role="status">{t`The machines are being judged by what was known then …`}</p>
      )}
      {known && <Held dates={known} />}
    </section>
  );
}

function Held({ dates }: { dates: Schemas['StatedDates'] }) {
  const left = dates.dated - dates.served;
  const had = plural(dates.dated, { one: '# machine had', other: '# machines had' });
  if (left === 0)
    return (
      <p>
        {dates.dated === 0
          ? t`On ${fullDay(dates.then)} no machine had a date at which it would reach its action line.`
          : t`On ${fullDay(dates.then)} ${had} a date at which to reach the action line; all were worked on since or are gone, so nothing can be told.`}
      </p>
    );
  const served =
    dates.served > 0
      ? t` ${plural(dates.served, { one: '# was', other: '# were' })} worked on since, or gone, and tell nothing.`
      : '';
  const off = dates.groups.some((g) => !g.holds);
  return (
    <>
      <p>
        {t`On ${fullDay(dates.then)} ${had} a date at which to reach the action line.${served} Of the other ${left}, by those dates ${tenths(dates.expected)} were to have passed it by ${fullDay(dates.now)}; ${plural(dates.passed, { one: '# has', other: '# have' })}.`}{' '}
        {off
          ? t`What was stated and what came do not go together everywhere.`
          : t`As far as they can tell, what was stated holds.`}{' '}
        <span className="quiet">{t`Dates that somebody acted on in time are not in it.`}</span>
      </p>
      <ChanceTable
        groups={dates.groups}
        cases={t`Machines`}
        came={t`Passed it`}
        stated={t`Stated to have passed it by now`}
      />
    </>
  );
}
