import { plural, t } from '@lingui/core/macro';
import { Select } from 'antd';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { useNews, useTold } from '../../api/notices';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { day, fullDay } from '../../words/format';
import { say } from '../../words/message';
import { NOTICE_KINDS, unseen } from '../../words/notices';
import { preferences, setPreferences, usePreferences } from '../../words/preferences';
import { byDay } from './days';
import './notices.css';

const KINDS = Object.keys(NOTICE_KINDS) as Schemas['NoticeKind'][];

/** What became pressing, due, silent, forgotten or short, day by day. */
export function News() {
  usePageTitle(t`What is new`);
  const { reader } = usePreferences();
  const news = useNews(reader);
  const told = useTold();
  // What was new when the page was opened stays marked until it is left.
  const [seen] = useState(() => preferences().seenNotice);
  const newest = Math.max(0, ...(news.data?.notices.map((n) => n.id) ?? []));
  useEffect(() => {
    if (newest > preferences().seenNotice) setPreferences({ seenNotice: newest });
  }, [newest]);
  const people = told.data?.people ?? [];
  const isGone = reader !== '' && told.data !== undefined && !people.some((p) => p.person === reader);
  useEffect(() => {
    if (isGone) setPreferences({ reader: '' });
  }, [isGone]);
  if (!news.data || !told.data) return <Unready of={[news, told]} title={t`What is new`} />;
  const { notices, watchedSince, days } = news.data;
  return (
    <div className="page broad">
      <div className="page-head">
        <h1>{headline(unseen(notices, seen), watchedSince === null)}</h1>
        <Link to="/notices/people">{t`Who is told, and how`}</Link>
      </div>
      {people.length > 0 && (
        <p className="no-gap">
          <label className="quiet">
            {t`Shown to`}{' '}
            <Select
              aria-label={t`Shown to`}
              value={reader}
              onChange={(value) => setPreferences({ reader: value })}
              options={[
                { value: '', label: t`everybody` },
                ...people.map((p) => ({ value: p.person, label: p.name })),
              ]}
              className="news-reader"
            />
          </label>
        </p>
      )}
      {watchedSince === null ? (
        <p className="quiet">{t`Once machines are judged, what is so then is what the house begins with. From the next day on stands here what is new.`}</p>
      ) : (
        notices.length === 0 && (
          <p className="quiet">
            {t`Nothing was noticed in the last ${plural(days, { one: '# day', other: '# days' })}. What was so on ${fullDay(watchedSince)} already, the day on which this house began to be watched, stands on Rounds.`}
          </p>
        )
      )}
      {byDay(notices, KINDS).map((of) => (
        <section key={of.day} className="section" aria-label={fullDay(of.day)}>
          <h2 className="section-head">{of.day === news.data.today ? t`Today` : fullDay(of.day)}</h2>
          {of.kinds.map(({ kind, notices: mine }) => (
            <div key={kind} className="news-kind">
              <h3>{NOTICE_KINDS[kind]}</h3>
              <ul>
                {mine.map((n) => (
                  <Line key={n.id} notice={n} isNew={n.id > seen} />
                ))}
              </ul>
            </div>
          ))}
        </section>
      ))}
    </div>
  );
}

function headline(count: number, isEmpty: boolean): string {
  if (isEmpty) return t`Nothing was judged yet.`;
  return count === 0
    ? t`Nothing new since you looked last.`
    : plural(count, { one: '# thing is new.', other: '# things are new.' });
}

function Line({ notice, isNew }: { notice: Schemas['NoticeAnswer']; isNew: boolean }) {
  return (
    <li className={notice.gone ? 'quiet' : undefined}>
      {isNew && <span className="news-new">{t`new`}</span>}
      {say(notice.says)}{' '}
      {notice.gone && <span className="small">{t`No more so since ${day(notice.gone)}.`} </span>}
      {notice.kind === 'stock-short' ? (
        <Link to="/stores">{t`To the stores`}</Link>
      ) : notice.asset ? (
        <Link to={`/machines/${encodeURIComponent(notice.asset)}`}>{t`Open ${notice.asset}`}</Link>
      ) : (
        notice.zoneName && <Link to="/halls">{notice.zoneName}</Link>
      )}
    </li>
  );
}
