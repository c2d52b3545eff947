import { t } from '@lingui/core/macro';
import { Button, Form, Radio, Select, Switch } from 'antd';
import { Link } from 'react-router';
import { useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { usePolicy, useWrite } from '../../api/queries';
import { useMay } from '../../api/session';
import { Refusal } from '../../ui/Refusal';
import { usePageTitle } from '../../ui/usePageTitle';
import { BENCH_SCHOOLS } from './benchSchools';
import { HouseValues } from './HouseValues';
import { Intervals } from './Intervals';
import { LocalRules } from './LocalRules';
import { Preview } from './Preview';
import './rules.css';
import { NumberField } from '../../ui/NumberField';
import { DifferenceField } from '../../ui/TemperatureField';
import { differenceUnit } from '../../words/format';
import { DOWN_HOURS, SCHOOLS } from '../../words/rules';

type Policy = Schemas['PolicyDto'];

const SCHOOL_TEXTS: Record<Schemas['School'], string> = {
  'whichever-first': t`by evidence or by the calendar`,
  calendar: t`intervals decide; evidence only where a machine is already in trouble`,
  evidence: t`if the numbers are fine, leave it alone`,
  failure: t`at a limit, throttling, or reported`,
};

const PRECEDENCES: readonly { value: Schemas['Precedence']; name: string; text: string }[] = [
  {
    value: 'evidence',
    name: t`Most to win, nearest action line`,
    text: t`between machines that stand alike, what brings most for an hour of work`,
  },
  { value: 'value', name: t`Most value`, text: t`what brings most for an hour of work, by the values below` },
];

const KELVINS = [
  { name: 'actionMarginKelvin', label: t`The action line lies below a part’s limit by`, min: 0, max: 30 },
  { name: 'worthKelvin', label: t`Less than this is not worth opening a machine for`, min: 0.5, max: 20 },
  { name: 'muchKelvin', label: t`This much to win is worth opening it at once`, min: 1, max: 40 },
] as const;

/** One of a few ways, each with what it means. */
function Choice({
  name,
  label,
  options,
}: {
  name: keyof Policy;
  label: string;
  options: readonly { value: string; name: string; text: string }[];
}) {
  return (
    <Form.Item name={name} label={label}>
      <Radio.Group className="rules-schools">
        {options.map((o) => (
          <Radio key={o.value} value={o.value}>
            {o.name} <span className="quiet">· {o.text}</span>
          </Radio>
        ))}
      </Radio.Group>
    </Form.Item>
  );
}

/** The house's rules: when a machine is worth opening, and what holds for some of them alone. */
export function Rules() {
  usePageTitle(t`House rules`);
  const mayKeepHouse = useMay('keep-house');
  const policy = usePolicy();
  return (
    <div className="page">
      <h1>{t`House rules`}</h1>
      <p className="quiet">{t`They hold for every machine, unless a rule below is nearer to it; the rounds follow at once.`}</p>
      <nav className="rules-nav" aria-label={t`On this page`}>
        {mayKeepHouse && (
          <>
            <Link to="/rules/accounts">{t`Accounts`}</Link>
            <Link to="/rules/audit">{t`Audit log`}</Link>
            <Link to="/rules/backups">{t`Backups`}</Link>
            <Link to="/rules/housekeeping">{t`Housekeeping`}</Link>
          </>
        )}
        <Link to="/rules/reference">{t`API reference`}</Link>
        <a href="#intervals">{t`How often the calendar asks`}</a>
        <a href="#values">{t`What things are worth`}</a>
        <a href="#downtime">{t`When machines may be down`}</a>
        <a href="#bench">{t`At the bench`}</a>
        <a href="#local-rules">{t`Rules for some machines`}</a>
        <a href="#learnt">{t`What the house’s own record says`}</a>
      </nav>
      {policy.isError && <Refusal error={policy.error} retry={() => void policy.refetch()} />}
      {policy.data && (
        <>
          <HouseForm policy={policy.data} />
          <LocalRules currency={policy.data.values?.currency ?? ''} />
        </>
      )}
    </div>
  );
}

function HouseForm({ policy }: { policy: Policy }) {
  const mayKeep = useMay('keep-rules');
  const save = useWrite((body: Policy) => unwrap(api.PUT('/api/v1/policy', { body })));
  const [form] = Form.useForm<Policy>();
  const [typed, setTyped] = useState<Policy | null>(null);
  return (
    <div className="rules-columns apart">
      <Form<Policy>
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={policy}
        onValuesChange={(_, fields) => setTyped(fields)}
        onFinish={(fields) => save.mutate(fields, { onSuccess: () => setTyped(null) })}
      >
        <Choice
          name="school"
          label={t`When a machine is served`}
          options={SCHOOLS.map((s) => ({
            value: s.value,
            name: s.label,
            text: SCHOOL_TEXTS[s.value as Schemas['School']],
          }))}
        />
        <Choice name="precedence" label={t`What goes first within one urgency`} options={PRECEDENCES} />
        {KELVINS.map(({ name, label, min, max }) => (
          <Form.Item
            key={name}
            name={name}
            label={t`${label}, ${differenceUnit().unit}`}
            rules={[{ required: true, message: t`A number is needed.` }]}
          >
            <DifferenceField min={min} max={max} step={0.5} />
          </Form.Item>
        ))}
        <Intervals />
        <HouseValues />
        <h2 className="next-heading" id="downtime">{t`When machines may be down`}</h2>
        <p className="quiet">{t`Weeks plans by these, and by the times of each zone; a rule for some machines may ask for more or less.`}</p>
        <Form.Item name={['downtime', 'hours']} label={t`Machines may be down for work`}>
          <Select options={[...DOWN_HOURS]} style={{ maxWidth: 340 }} />
        </Form.Item>
        <Form.Item
          name={['downtime', 'sparesQuarterEnd']}
          label={t`Never in the last week of a quarter`}
          valuePropName="checked"
        >
          <Switch aria-label={t`Never in the last week of a quarter`} />
        </Form.Item>
        <h2 className="next-heading" id="bench">{t`At the bench`}</h2>
        <p className="quiet">{t`Work cards are made by these; jobs in hand follow at once.`}</p>
        {BENCH_SCHOOLS.map((s) => (
          <Form.Item key={s.name} name={['bench', s.name]} label={s.label}>
            <Select options={[...s.options]} style={{ maxWidth: 340 }} />
          </Form.Item>
        ))}
        <Form.Item
          name={['bench', 'comebackDays']}
          label={t`A machine comes back within, days`}
          extra={t`Its new job is linked to the one before; 0 for never.`}
          rules={[{ required: true, message: t`A number of days is needed, 0 to 365.` }]}
        >
          <NumberField min={0} max={365} inputMode="numeric" />
        </Form.Item>
        <Form.Item
          name={['bench', 'comebacksFree']}
          label={t`Comebacks are free of charge`}
          valuePropName="checked"
        >
          <Switch aria-label={t`Comebacks are free of charge`} />
        </Form.Item>
        <Form.Item
          name={['bench', 'othersMachines']}
          label={t`Machines belong to others`}
          extra={t`What was agreed with the owner is then written down before a machine is opened.`}
          valuePropName="checked"
        >
          <Switch aria-label={t`Machines belong to others`} />
        </Form.Item>
        <Form.Item
          name={['bench', 'tellsDamage']}
          label={t`Damage done by a job stands on its proof sheet`}
          valuePropName="checked"
        >
          <Switch aria-label={t`Damage done by a job stands on its proof sheet`} />
        </Form.Item>
        <Button type="primary" htmlType="submit" disabled={save.isPending || !mayKeep}>
          {t`Keep these rules`}
        </Button>{' '}
        {save.isSuccess && typed === null && <span role="status">{t`Kept; the rounds follow at once.`}</span>}
        {save.isError && <Refusal error={save.error} />}
      </Form>
      <aside className="rules-side">
        <Preview rules={typed ? JSON.stringify({ policy: typed }) : null} />
      </aside>
    </div>
  );
}
