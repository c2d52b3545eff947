import { t } from '@lingui/core/macro';
import { Checkbox, Form, Input, Select } from 'antd';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite, useZones } from '../../api/queries';
import { EditDialog, needed } from '../../ui/EditDialog';
import { NumberField } from '../../ui/NumberField';
import { SKILLS } from './jobWords';
import { codeFor } from './codeFor';
import { WeeklyTimes, workdays } from './WeeklyTimes';

type PersonFields = {
  name: string;
  skills: Schemas['Skill'][];
  sites: string[];
  hours: Schemas['WeeklyTimeDto'][];
};

/** Adds somebody, or changes what is known of them. */
export function EditPerson({
  person,
  taken,
  onClose,
}: {
  person: Schemas['PersonAnswer'] | null;
  taken: readonly string[];
  onClose: () => void;
}) {
  const zones = useZones().data ?? [];
  const sites = [...new Set(zones.map((z) => z.site))];
  const write = useWrite(({ name, skills, sites: at, hours }: PersonFields) =>
    unwrap(
      api.PUT('/api/v1/people/{code}', {
        params: { path: { code: person?.code ?? codeFor(name, taken) } },
        body: { name, skills, sites: at, hours },
      }),
    ),
  );
  return (
    <EditDialog<PersonFields>
      title={person ? person.name : t`Add somebody`}
      initial={
        person
          ? { name: person.name, skills: person.skills, sites: person.sites, hours: person.hours }
          : { name: '', skills: [], sites: [], hours: workdays() }
      }
      write={write}
      onClose={onClose}
    >
      <Form.Item name="name" label={t`Name`} rules={needed(t`A name`)}>
        <Input maxLength={80} />
      </Form.Item>
      <Form.Item
        name="skills"
        label={t`May, beyond what everybody may`}
        extra={t`Dust is blown out and looked at by everybody.`}
      >
        <Checkbox.Group options={Object.entries(SKILLS).map(([value, label]) => ({ value, label }))} />
      </Form.Item>
      {sites.length > 1 && (
        <Form.Item name="sites" label={t`Sites; none for all`}>
          <Select mode="multiple" options={sites.map((s) => ({ value: s, label: s }))} />
        </Form.Item>
      )}
      <WeeklyTimes name="hours" label={t`Hours of work`} none={t`None: nothing is planned for them.`} />
    </EditDialog>
  );
}

type Away = { from: string; to: string; reason: string };

/** Days on which somebody is away. */
export function AddAbsence({
  person,
  today,
  onClose,
}: {
  person: Schemas['PersonAnswer'];
  today: string;
  onClose: () => void;
}) {
  const write = useWrite(({ from, to, reason }: Away) =>
    unwrap(
      api.POST('/api/v1/people/{code}/absences', {
        params: { path: { code: person.code } },
        body: { from, to: to || null, reason },
      }),
    ),
  );
  return (
    <EditDialog<Away>
      title={t`${person.name} is away`}
      initial={{ from: today, to: today, reason: '' }}
      write={write}
      onClose={onClose}
    >
      <div className="two-fields">
        <Form.Item name="from" label={t`From`} rules={needed(t`The first day`)}>
          <Input type="date" />
        </Form.Item>
        <Form.Item name="to" label={t`Up to and with`}>
          <Input type="date" />
        </Form.Item>
      </div>
      <Form.Item name="reason" label={t`Why, if it is to stand in the plan`}>
        <Input maxLength={80} />
      </Form.Item>
    </EditDialog>
  );
}

type ZoneFields = {
  setupMinutes: number;
  maxDown: number | null;
  open: Schemas['WeeklyTimeDto'][];
  closed: string;
};

/** When machines of a zone may be down. */
export function EditZoneTimes({ zone, onClose }: { zone: Schemas['ZoneTimesAnswer']; onClose: () => void }) {
  const write = useWrite(({ setupMinutes, maxDown, open, closed }: ZoneFields) =>
    unwrap(
      api.PUT('/api/v1/zones/{code}/times', {
        params: { path: { code: zone.zone } },
        body: { setupMinutes, maxDown, open, closed: readClosed(closed) },
      }),
    ),
  );
  return (
    <EditDialog<ZoneFields>
      title={zone.name}
      initial={{
        setupMinutes: zone.setupMinutes,
        maxDown: zone.maxDown,
        open: zone.open,
        closed: zone.closed.map((c) => `${c.from} ${c.to} ${c.reason}`.trim()).join('\n'),
      }}
      write={write}
      onClose={onClose}
    >
      <div className="two-fields">
        <Form.Item
          name="setupMinutes"
          label={t`Set-up for a visit, minutes`}
          extra={t`The tools, the mat; the way there is told apart.`}
          rules={needed(t`A number of minutes`)}
        >
          <NumberField min={0} max={240} inputMode="numeric" />
        </Form.Item>
        <Form.Item name="maxDown" label={t`Machines down at once, at most`} extra={t`Empty: any number.`}>
          <NumberField min={1} max={1000} inputMode="numeric" />
        </Form.Item>
      </div>
      <WeeklyTimes name="open" label={t`Machines may be down`} none={t`At any time.`} />
      <Form.Item
        name="closed"
        label={t`Closed`}
        extra={t`One line each: first day, last day, why. Such as 2026-12-14 2026-12-18 exams`}
      >
        <Input.TextArea rows={3} className="figures" />
      </Form.Item>
    </EditDialog>
  );
}

/** What it takes to walk from one zone to the next. */
export function EditWalking({ walking, onClose }: { walking: Schemas['WalkingDto']; onClose: () => void }) {
  const write = useWrite((body: Schemas['WalkingDto']) => unwrap(api.PUT('/api/v1/walking', { body })));
  return (
    <EditDialog<Schemas['WalkingDto']>
      title={t`The way between zones`}
      initial={walking}
      write={write}
      onClose={onClose}
    >
      <div className="two-fields">
        <Form.Item
          name="withinSite"
          label={t`Within a site, minutes`}
          extra={t`From one zone to the next, besides the set-up there.`}
          rules={needed(t`A number of minutes`)}
        >
          <NumberField min={0} max={240} inputMode="numeric" />
        </Form.Item>
        <Form.Item
          name="betweenSites"
          label={t`From one site to another, minutes`}
          rules={needed(t`A number of minutes`)}
        >
          <NumberField min={0} max={240} inputMode="numeric" />
        </Form.Item>
      </div>
    </EditDialog>
  );
}

/** A line of closed days: two days and a reason; what is no day is refused by the server with its line. */
function readClosed(text: string): Schemas['AbsenceDto'][] {
  return text
    .split('\n')
    .map((line) => line.trim().split(/\s+/))
    .filter(([first]) => first !== undefined && first !== '')
    .map(([from, to, ...why]) => ({ from: from!, to: to ?? null, reason: why.join(' ') }));
}
