import { t } from '@lingui/core/macro';
import { Button, Form, Input, Modal, Radio, Select } from 'antd';
import { useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { NumberField } from '../../ui/NumberField';
import { Refusal } from '../../ui/Refusal';
import { DifferenceField } from '../../ui/TemperatureField';
import { capital, differenceUnit } from '../../words/format';
import { SCOPES, SETTINGS, targetName, type Setting, type SettingField } from '../../words/rules';
import { Preview } from './Preview';

type Change = Schemas['RuleChange'];
type Scope = Exclude<Schemas['RuleScope'], 'house'>;

const TO_CHOOSE: readonly Scope[] = ['site', 'zone', 'kind', 'zone-kind', 'model', 'machine'];

/** What a setting starts from once it is chosen. */
const first = (field: SettingField) =>
  field.as === 'choice' ? field.options[0]!.value : field.as === 'flag' ? true : field.first;

/** A rule for some machines, with what it would change before it is kept. */
export function EditRule({
  rule,
  adds = {},
  known,
  currency,
  onClose,
}: {
  rule: Schemas['LocalRuleAnswer'] | null;
  /** What is to be set besides, to be looked at first. */
  adds?: Change;
  known: Schemas['LocalRulesAnswer'];
  currency: string;
  onClose: () => void;
}) {
  const [scope, setScope] = useState<Scope>(rule && rule.scope !== 'house' ? rule.scope : 'zone');
  const [key, setKey] = useState(rule?.key ?? '');
  const [change, setChange] = useState<Change>({ ...rule?.change, ...adds });
  const save = useWrite((body: Schemas['LocalRuleDto']) => unwrap(api.PUT('/api/v1/rules', { body })));
  const set = SETTINGS.filter((s) => change[s.name] !== null && change[s.name] !== undefined);
  const free = SETTINGS.filter((s) => !set.includes(s));
  const put = (name: Setting, value: unknown) => setChange((c) => ({ ...c, [name]: value }));
  const whole = key.trim() !== '' && set.length > 0;
  const sent = { scope, key: key.trim(), change };
  const there = !rule && known.rules.some((r) => r.scope === scope && r.key === key.trim());
  return (
    <Modal
      title={rule ? t`Change a rule` : t`A rule for some machines`}
      open
      width={720}
      onCancel={onClose}
      okText={t`Keep this rule`}
      okButtonProps={{ disabled: !whole || there }}
      confirmLoading={save.isPending}
      onOk={() => save.mutate(sent, { onSuccess: onClose })}
    >
      {save.isError && <Refusal error={save.error} />}
      <Form layout="vertical" component="div">
        <Form.Item label={t`It holds for a`}>
          <Radio.Group
            value={scope}
            disabled={rule !== null}
            onChange={(e) => {
              setScope(e.target.value as Scope);
              setKey('');
            }}
            options={TO_CHOOSE.map((s) => ({ value: s, label: SCOPES[s] }))}
          />
        </Form.Item>
        <Form.Item label={capital(SCOPES[scope])} htmlFor="rule-key">
          {scope === 'machine' ? (
            <Input
              id="rule-key"
              value={key}
              maxLength={200}
              disabled={rule !== null}
              placeholder={t`Its tag`}
              onChange={(e) => setKey(e.target.value)}
            />
          ) : (
            <Select<string>
              id="rule-key"
              showSearch={{ optionFilterProp: 'label' }}
              value={key || null}
              disabled={rule !== null}
              placeholder={t`Choose`}
              onChange={setKey}
              options={known.targets
                .filter((target) => target.scope === scope)
                .map((target) => ({
                  value: target.key,
                  label: `${targetName(target)} (${String(target.machines)})`,
                }))}
            />
          )}
        </Form.Item>
      </Form>
      {there && <p role="alert">{t`There is a rule for it already: change that one.`}</p>}
      {set.map((field) => (
        <div key={field.name} className="rules-setting">
          <span>
            <span id={`setting-${field.name}`}>{field.label}</span>
            {field.as === 'months' && <span className="quiet small"> {t`(0 for never)`}</span>}
          </span>
          <SettingInput
            field={field}
            value={change[field.name]}
            currency={currency}
            onChange={(value) => put(field.name, value)}
          />
          <Button onClick={() => put(field.name, null)} aria-label={t`Leave to wider rules: ${field.label}`}>
            {t`Leave out`}
          </Button>
        </div>
      ))}
      <Select
        className="apart-small"
        style={{ width: '100%' }}
        showSearch={{ optionFilterProp: 'label' }}
        value={null}
        placeholder={set.length === 0 ? t`What it sets: choose` : t`Set something more`}
        aria-label={t`What it sets`}
        options={free.map((s) => ({ value: s.name, label: s.label }))}
        onChange={(name: Setting | null) => {
          const field = SETTINGS.find((s) => s.name === name);
          if (field) put(field.name, first(field));
        }}
      />
      <div className="apart">
        <Preview rules={whole ? JSON.stringify({ rule: sent }) : null} />
      </div>
    </Modal>
  );
}

function SettingInput({
  field,
  value,
  currency,
  onChange,
}: {
  field: SettingField;
  value: unknown;
  currency: string;
  onChange: (value: unknown) => void;
}) {
  const named = { 'aria-labelledby': `setting-${field.name}` };
  switch (field.as) {
    case 'choice':
      return (
        <Select
          {...named}
          value={value as string}
          options={[...field.options]}
          onChange={(chosen: string) => onChange(chosen)}
        />
      );
    case 'flag':
      return (
        <Radio.Group
          {...named}
          value={value}
          onChange={(e) => onChange(e.target.value)}
          options={[
            { value: true, label: t`yes` },
            { value: false, label: t`no` },
          ]}
        />
      );
    case 'kelvin':
      return (
        <DifferenceField
          {...named}
          value={value as number}
          min={field.min}
          max={field.max}
          step={0.5}
          suffix={differenceUnit().unit}
          // An emptied field keeps what stood there: to leave a setting out there is a button.
          onChange={(typed) => typed !== null && onChange(typed)}
        />
      );
    default:
      return (
        <NumberField
          {...named}
          value={value as number}
          min={field.min}
          max={field.max}
          step={field.as === 'share' ? 0.1 : field.as === 'money' ? 0.5 : 1}
          inputMode="decimal"
          suffix={field.as === 'months' ? t`months` : field.as === 'money' ? currency : undefined}
          onChange={(typed) => typed !== null && onChange(typed)}
        />
      );
  }
}
