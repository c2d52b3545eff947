import { t } from '@lingui/core/macro';
import { Button, Popconfirm } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { useStaff, useWeeks, useWrite } from '../../api/queries';
import { useMay } from '../../api/session';
import { Refusal } from '../../ui/Refusal';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { day, minutes } from '../../words/format';
import { AddAbsence, EditPerson, EditWalking, EditZoneTimes } from './StaffDialogs';
import { SKILLS } from './jobWords';
import { hoursAWeek, weekWords } from './weekdays';
import './weeks.css';

type Open =
  | { kind: 'person'; person: Schemas['PersonAnswer'] | null }
  | { kind: 'away'; person: Schemas['PersonAnswer'] }
  | { kind: 'zone'; zone: Schemas['ZoneTimesAnswer'] }
  | { kind: 'walking' };

/** Who works when, and where work may be done when. */
export function Staff() {
  const mayKeep = useMay('keep-people');
  usePageTitle(t`People and times`);
  const staff = useStaff();
  const weeks = useWeeks();
  const [open, setOpen] = useState<Open | null>(null);
  const back = useWrite((id: number) =>
    unwrap(api.DELETE('/api/v1/absences/{id}', { params: { path: { id } } })),
  );
  const remove = useWrite((code: string) =>
    unwrap(api.DELETE('/api/v1/people/{code}', { params: { path: { code } } })),
  );
  const release = useWrite((tag: string) =>
    unwrap(
      api.PUT('/api/v1/assets/{tag}/hold', {
        params: { path: { tag } },
        body: { until: null, reason: null },
      }),
    ),
  );
  if (!staff.data || !weeks.data) return <Unready of={[staff, weeks]} title={t`People and times`} />;
  const { people, zones, holds, walking } = staff.data;
  const error = back.error ?? remove.error ?? release.error;
  return (
    <div className="page broad">
      <p className="quiet">
        <Link to="/weeks">{t`Weeks`}</Link>
      </p>
      <h1>{t`People and times`}</h1>
      <p className="quiet">{t`The next plan is made by these; the one in force says what cannot stand any more.`}</p>
      {error && <Refusal error={error} />}
      {people.map((p) => (
        <section key={p.code} className="weeks-staff ruled" aria-label={p.name}>
          <div>
            <h2>{p.name}</h2>
            <p className="no-gap">
              {p.hours.length === 0 ? t`No hours yet: nothing is planned for them.` : weekWords(p.hours)}
              {p.hours.length > 0 && <span className="quiet"> · {hoursAWeek(p.hours)}</span>}
            </p>
            <p className="small quiet no-gap">
              {p.skills.length === 0
                ? t`may do what everybody may`
                : t`may ${p.skills.map((s) => SKILLS[s]).join(', ')}`}
              {p.sites.length > 0 && t` · at ${p.sites.join(', ')}`}
            </p>
            {p.absences.map((a) => (
              <p key={a.id} className="small no-gap">
                {a.from === a.to ? t`away ${day(a.from)}` : t`away ${day(a.from)} to ${day(a.to)}`}
                {a.reason && `: ${a.reason}`}{' '}
                <Button size="small" type="link" onClick={() => back.mutate(a.id)}>{t`take back`}</Button>
              </p>
            ))}
          </div>
          <div className="button-row">
            <a className="alone" href={`/api/v1/calendar.ics?person=${p.code}`}>{t`Calendar`}</a>
            <Button onClick={() => setOpen({ kind: 'away', person: p })}>{t`Away`}</Button>
            <Button onClick={() => setOpen({ kind: 'person', person: p })}>{t`Edit`}</Button>
            <Popconfirm
              title={t`Remove ${p.name}, with hours and absences?`}
              okText={t`Remove`}
              cancelText={t`Keep`}
              onConfirm={() => remove.mutate(p.code)}
            >
              <Button type="text" loading={remove.isPending}>{t`Remove`}</Button>
            </Popconfirm>
          </div>
        </section>
      ))}
      <Button
        type="primary"
        className="apart"
        disabled={!mayKeep}
        onClick={() => setOpen({ kind: 'person', person: null })}
      >
        {t`Add somebody`}
      </Button>
      {zones.length > 0 && <h2 className="next-heading">{t`When machines may be down`}</h2>}
      {zones.map((z) => (
        <section key={z.zone} className="weeks-staff ruled" aria-label={z.name}>
          <div>
            <p className="no-gap heavy">{z.name}</p>
            <p className="small quiet no-gap">
              {z.open.length === 0 ? t`at any time` : weekWords(z.open)}
              {t` · ${minutes(z.setupMinutes)} of set-up`}
              {z.maxDown !== null && t` · at most ${z.maxDown} down at once`}
            </p>
            {z.closed.map((c) => (
              <p key={c.from} className="small no-gap">
                {t`closed ${day(c.from)} to ${day(c.to)}`}
                {c.reason && `: ${c.reason}`}
              </p>
            ))}
          </div>
          <Button onClick={() => setOpen({ kind: 'zone', zone: z })}>{t`Edit`}</Button>
        </section>
      ))}
      {zones.length > 1 && (
        <section className="weeks-staff ruled" aria-label={t`The way between zones`}>
          <div>
            <p className="no-gap heavy">{t`The way between zones`}</p>
            <p className="small quiet no-gap">
              {t`${minutes(walking.withinSite ?? 0)} within a site · ${minutes(walking.betweenSites ?? 0)} from one site to another`}
            </p>
          </div>
          <Button onClick={() => setOpen({ kind: 'walking' })}>{t`Edit`}</Button>
        </section>
      )}
      {holds.length > 0 && <h2 className="next-heading">{t`Machines that wait`}</h2>}
      {holds.map((h) => (
        <p key={h.tag} className="no-gap">
          <Link to={`/machines/${encodeURIComponent(h.tag)}`} className="figures">
            {h.tag}
          </Link>{' '}
          {t`until ${day(h.until)}: ${h.reason}`}{' '}
          <Button size="small" type="link" onClick={() => release.mutate(h.tag)}>{t`take back`}</Button>
        </p>
      ))}
      {open?.kind === 'person' && (
        <EditPerson person={open.person} taken={people.map((p) => p.code)} onClose={() => setOpen(null)} />
      )}
      {open?.kind === 'away' && (
        <AddAbsence person={open.person} today={weeks.data.today} onClose={() => setOpen(null)} />
      )}
      {open?.kind === 'zone' && <EditZoneTimes zone={open.zone} onClose={() => setOpen(null)} />}
      {open?.kind === 'walking' && <EditWalking walking={walking} onClose={() => setOpen(null)} />}
    </div>
  );
}
