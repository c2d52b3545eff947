import { plural, t } from '@lingui/core/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Button, Input, Select } from 'antd';
import { Link } from 'react-router';
import { api, unwrap } from '../../api/client';
import '../../ui/work.css';
import { fullDay, instant } from '../../words/format';
import { say } from '../../words/message';
import { usePageTitle } from '../../ui/usePageTitle';
import { DayField } from '../../ui/DayField';
import { Pages } from '../../ui/Pages';
import { PlainTable } from '../../ui/PlainTable';
import { Unready } from '../../ui/Unready';
import { useFilters } from '../../ui/useFilters';

const PAGE = 50;

/** Kinds of line, bundled as people look for them. */
const BUNDLES: Record<string, string> = {
  [t`Services and jobs`]: 'service,job,work-filed,verdict-filed,given-up,reopened,handed-back,level-changed',
  [t`Runs`]: 'run-measured,run-voided,before-excused',
  [t`Findings`]: 'found,damage-found,deviation-seen',
  [t`Photos`]: 'photo-taken',
  [t`Reports`]: 'report,complaint-recorded',
  [t`Materials and minutes`]: 'material-used,minutes-booked',
  [t`Changes and corrections`]: 'change,zone,reading,count-excused,warranty-answered',
  [t`Steps`]:
    'step-done,step-undone,step-skipped,step-added,step-repeated,counted,timer-started,timer-stopped',
};

/** Every service, run, finding, photo and change, of one machine or of all; to be searched and taken along. */
export function LogBook() {
  const { get, set, page } = useFilters();
  const asset = get('asset');
  usePageTitle(asset ? t`Log book of ${asset}` : t`Log book`);
  const filter = {
    ...(asset ? { asset } : {}),
    ...(get('kinds') ? { kinds: BUNDLES[get('kinds')] ?? get('kinds') } : {}),
    ...(get('from') ? { from: get('from') } : {}),
    ...(get('until') ? { until: get('until') } : {}),
    ...(get('text') ? { text: get('text') } : {}),
  };
  const log = useQuery({
    queryKey: ['log', filter, page],
    queryFn: () =>
      unwrap(
        api.GET('/api/v1/log', { params: { query: { ...filter, skip: (page - 1) * PAGE, take: PAGE } } }),
      ),
    placeholderData: keepPreviousData,
  });
  const query = new URLSearchParams(filter).toString();
  return (
    <div className="page broad">
      <h1>{asset ? t`Log book of ${asset}.` : t`Log book of the whole fleet.`}</h1>
      <div className="bench-more log-filters">
        <Input.Search
          aria-label={t`Search`}
          placeholder={t`a word: torn, crooked, SV-0005`}
          defaultValue={get('text')}
          allowClear
          onSearch={(text) => set({ text: text.trim() })}
          style={{ width: 250 }}
        />
        <Select
          aria-label={t`Kind`}
          placeholder={t`everything`}
          allowClear
          value={get('kinds') || null}
          onChange={(kinds: string | null) => set({ kinds: kinds ?? '' })}
          options={Object.keys(BUNDLES).map((b) => ({ value: b, label: b }))}
          style={{ width: 210 }}
        />
        <DayField label={t`from`} value={get('from')} onChange={(from) => set({ from })} />
        <DayField label={t`to`} value={get('until')} onChange={(until) => set({ until })} />
        {asset && <Button onClick={() => set({ asset: '' })}>{t`All machines`}</Button>}
        <a href={`/api/v1/log.csv?${query}`} download>
          {t`CSV`}
        </a>
        <a href={`/api/v1/log.json?${query}`} download>
          {t`JSON`}
        </a>
      </div>
      {!log.data && <Unready of={[log]} as="part" />}
      {log.data && (
        <>
          <p className="quiet" role="status">
            {log.data.total === 0
              ? t`Nothing found.`
              : plural(log.data.total, { one: '# line, newest first.', other: '# lines, newest first.' })}
          </p>
          <PlainTable>
            {log.data.lines.map((l, i) => (
              <tr key={`${l.at} ${String(i)}`}>
                <td className="quiet small" style={{ width: 130 }}>
                  {l.at.endsWith('T00:00:00+00:00') ? fullDay(l.at.slice(0, 10)) : instant(l.at)}
                </td>
                <td className="figures" style={{ width: 84 }}>
                  <Link to={`/machines/${encodeURIComponent(l.asset)}`}>{l.asset}</Link>
                </td>
                <td>
                  {say(l.message)}
                  {l.photo && (
                    <a href={`/api/v1/photos/${l.photo}`}>
                      {' '}
                      <img
                        src={`/api/v1/photos/${l.photo}?small=true`}
                        alt={say(l.message)}
                        height={36}
                        className="mid"
                      />
                    </a>
                  )}
                  {l.by && <span className="quiet small"> · {l.by}</span>}
                </td>
                <td style={{ width: 64 }}>
                  {l.jobId !== null && <Link to={`/bench/${String(l.jobId)}`}>{t`job ${l.jobId}`}</Link>}
                </td>
              </tr>
            ))}
          </PlainTable>
          <Pages page={page} size={PAGE} total={log.data.total} onChange={(p) => set({ page: p })} />
        </>
      )}
    </div>
  );
}
