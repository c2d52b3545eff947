import { plural, t } from '@lingui/core/macro';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { DayField } from '../../ui/DayField';
import { Pages } from '../../ui/Pages';
import { PlainTable } from '../../ui/PlainTable';
import { Unready } from '../../ui/Unready';
import { useFilters } from '../../ui/useFilters';
import { usePageTitle } from '../../ui/usePageTitle';
import '../../ui/work.css';
import { instant } from '../../words/format';
import { say } from '../../words/message';
import { word } from '../../words/word';
import { differences } from './differences';

type Line = Schemas['ChangeAnswer'];

const PAGE = 50;

/** Above this an address of the page would be no use to anybody: the words themselves are looked for. */
const LONGEST_SEARCH = 200;

/** Who did what, when, from where: everything that was ever changed, tried or refused in the house. */
export function Audit() {
  usePageTitle(t`Audit log`);
  const { get, set, page } = useFilters();
  const filter = Object.fromEntries(
    ['who', 'kinds', 'asset', 'from', 'until', 'address', 'text'].flatMap((name) =>
      get(name) ? [[name, get(name)]] : [],
    ),
  );
  const answer = useQuery({
    queryKey: ['audit', filter, page],
    queryFn: () =>
      unwrap(
        api.GET('/api/v1/audit', { params: { query: { ...filter, skip: (page - 1) * PAGE, take: PAGE } } }),
      ),
    placeholderData: keepPreviousData,
  });
  const choices = useQuery({
    queryKey: ['audit', 'choices'],
    queryFn: () => unwrap(api.GET('/api/v1/audit/choices')),
  });
  const [open, setOpen] = useState<number | null>(null);
  const query = new URLSearchParams(filter).toString();
  const choose = (name: string, label: string, all: string, values: readonly string[] | undefined) => (
    <Select
      aria-label={label}
      placeholder={all}
      allowClear
      showSearch={{ optionFilterProp: 'label' }}
      value={get(name) || null}
      onChange={(value: string | null) => set({ [name]: value ?? '' })}
      options={(values ?? []).filter(Boolean).map((v) => ({ value: v, label: v }))}
      style={{ width: 210 }}
    />
  );
  return (
    <div className="page broad">
      <p className="quiet no-gap">
        <Link to="/rules">{t`House rules`}</Link>
      </p>
      <h1>{t`Who did what, when and from where.`}</h1>
      <Chain />
      <div className="bench-more log-filters">
        <Input.Search
          aria-label={t`Search`}
          placeholder={t`a word, a value`}
          defaultValue={get('text')}
          maxLength={LONGEST_SEARCH}
          allowClear
          onSearch={(text) => set({ text: text.trim() })}
          style={{ width: 200 }}
        />
        {choose('who', t`Who`, t`anybody`, choices.data?.who)}
        <Select
          mode="multiple"
          aria-label={t`Kind`}
          placeholder={t`everything`}
          allowClear
          maxTagCount="responsive"
          value={get('kinds') ? get('kinds').split(',') : []}
          onChange={(kinds: string[]) => set({ kinds: kinds.join(',') })}
          options={(choices.data?.kinds ?? []).map((k) => ({ value: k, label: word(k) }))}
          showSearch={{ optionFilterProp: 'label' }}
          style={{ width: 220 }}
        />
        {choose('address', t`Address`, t`from anywhere`, choices.data?.addresses)}
        <DayField label={t`from`} value={get('from')} onChange={(from) => set({ from })} />
        <DayField label={t`to`} value={get('until')} onChange={(until) => set({ until })} />
        {get('asset') && <Button onClick={() => set({ asset: '' })}>{t`All machines`}</Button>}
        <a href={`/api/v1/audit.csv?${query}`} download>
          {t`CSV`}
        </a>
        <a href={`/api/v1/audit.jsonl?${query}`} download>
          {t`JSON lines`}
        </a>
      </div>
      {!answer.data && <Unready of={[answer]} as="part" />}
      {answer.data && (
        <>
          <p className="quiet" role="status">
            {answer.data.total === 0
              ? t`Nothing found.`
              : plural(answer.data.total, { one: '# line, newest first.', other: '# lines, newest first.' })}
          </p>
          <PlainTable
            head={
              <>
                <th>{t`When`}</th>
                <th>{t`Who`}</th>
                <th>{t`From`}</th>
                <th>{t`What`}</th>
                <th aria-label={t`More`} />
              </>
            }
          >
            {answer.data.lines.flatMap((l) => [
              <tr key={l.id}>
                <td className="quiet small" style={{ width: 130 }}>
                  {instant(l.storedAt)}
                </td>
                <td style={{ minWidth: 120 }} translate="no">
                  {whoOf(l)}
                </td>
                <td className="quiet small" translate="no">
                  {l.address ?? ''}
                </td>
                <td>
                  {say(l.message)}
                  {l.asset && (
                    <>
                      {' '}
                      <Link className="figures small" to={`/machines/${encodeURIComponent(l.asset)}`}>
                        {l.asset}
                      </Link>
                    </>
                  )}
                </td>
                <td style={{ width: 90 }}>
                  <Button
                    size="small"
                    aria-expanded={open === l.id}
                    onClick={() => setOpen(open === l.id ? null : l.id)}
                  >
                    {open === l.id ? t`Less` : t`More`}
                  </Button>
                </td>
              </tr>,
              ...(open === l.id ? [<More key="more" line={l} />] : []),
            ])}
          </PlainTable>
          <Pages page={page} size={PAGE} total={answer.data.total} onChange={(p) => set({ page: p })} />
        </>
      )}
    </div>
  );
}

/** Whether any line was changed or taken out since it was written; followed when somebody asks, since it reads them all. */
function Chain() {
  const chain = useQuery({
    queryKey: ['audit', 'chain'],
    queryFn: () => unwrap(api.GET('/api/v1/audit/chain')),
    enabled: false,
  });
  const { data } = chain;
  const last = data?.last?.slice(0, 12);
  return (
    <p className="quiet" role="status">
      {t`Each line carries a hash over itself and the line before it: one that is changed or taken out later is found.`}{' '}
      {data && (
        <strong>
          {data.firstBroken === null
            ? plural(data.lines, {
                one: 'The one line is as it was written.',
                other: 'All # lines are as they were written.',
              })
            : t`Line ${data.firstBroken} is not as it was written, or one before it is missing.`}
        </strong>
      )}{' '}
      {data?.firstBroken === null &&
        last &&
        t`The last hash begins with ${last}: noted elsewhere, it shows later that none is missing at the end.`}{' '}
      <Button size="small" loading={chain.isFetching} onClick={() => void chain.refetch()}>
        {t`Check it now`}
      </Button>
    </p>
  );
}

/** What stood there before and after, member by member; the rest of the line. */
function More({ line }: { line: Line }) {
  const changed = differences(line.before, line.after);
  const named = changed.some((d) => d.what !== '');
  return (
    <tr>
      <td />
      <td colSpan={4}>
        {changed.length > 0 && (
          <PlainTable
            head={
              <>
                {named && <th>{t`What`}</th>}
                <th>{t`Before`}</th>
                <th>{t`After`}</th>
              </>
            }
          >
            {changed.map((d) => (
              <tr key={d.what}>
                {named && <td className="quiet">{d.what}</td>}
                <td className="breaks">{d.before ?? t`nothing`}</td>
                <td className="breaks">{d.after ?? t`nothing`}</td>
              </tr>
            ))}
          </PlainTable>
        )}
        <p className="quiet small">
          {line.at !== line.storedAt && t`It happened ${instant(line.at)} and was written later.`}{' '}
          {line.jobId !== null && <Link to={`/bench/${String(line.jobId)}`}>{t`job ${line.jobId}`}</Link>}{' '}
          {t`Line ${line.id}, hash`} <span className="breaks">{line.hash}</span>
        </p>
      </td>
    </tr>
  );
}

function whoOf({ actor }: Line): string {
  if (actor.kind === 'program') return t`the program`;
  if (actor.name === null) return t`whoever was here`;
  return actor.kind === 'device' ? t`${actor.name}, a program or device` : actor.name;
}
