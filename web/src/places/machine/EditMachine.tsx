import { t } from '@lingui/core/macro';
import { Button, Form, Input, Select } from 'antd';
import { useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite, useZones } from '../../api/queries';
import { capital, partName, useTemperature } from '../../words/format';
import { EditDialog, needed } from '../../ui/EditDialog';
import { NumberField } from '../../ui/NumberField';
import { TemperatureField } from '../../ui/TemperatureField';
import { word } from '../../words/word';

interface Fields {
  model: string;
  kind: Schemas['AssetKind'];
  zone: string;
  hostTag?: string;
  dutyHoursPerDay: number;
  inServiceSince: string;
  warrantyUntil?: string;
  limits: number[];
  joints: Schemas['JointMaterial'][];
  added: { part: string; limitCelsius: number; interface: Schemas['JointMaterial'] }[];
}

const MOST_PARTS = 12;

/** What carries the heat from a part to its cooler. */
const JOINTS = (['paste', 'pad'] as const).map((value) => ({ value, label: word(value) }));

/** As the server takes it: a name heads a column of readings. */
const PART_NAME = /^(?!(?:ambient|outlet)$)[a-z][a-z0-9_-]{0,39}$/;

/** Edits what the register knows of a machine; a move is a change of zone. */
export function EditMachine({
  machine,
  onClose,
}: {
  machine: Schemas['MachineAnswer'];
  onClose: () => void;
}) {
  const zones = useZones();
  const { unit } = useTemperature();
  const [removed, setRemoved] = useState<readonly (string | null)[]>([]);
  const write = useWrite((f: Fields) =>
    unwrap(
      api.PUT('/api/v1/assets/{tag}', {
        params: { path: { tag: machine.tag } },
        body: {
          model: f.model,
          kind: f.kind,
          zone: f.zone,
          hostTag: f.hostTag ? f.hostTag : null,
          dutyHoursPerDay: f.dutyHoursPerDay,
          inServiceSince: f.inServiceSince,
          warrantyUntil: f.warrantyUntil ? f.warrantyUntil : null,
          parts: [
            ...machine.parts
              .map((p, i) => ({ part: p.part, limitCelsius: f.limits[i]!, interface: f.joints[i]! }))
              .filter((p) => !removed.includes(p.part)),
            ...f.added,
          ],
        },
      }),
    ),
  );
  return (
    <EditDialog<Fields>
      title={t`Edit ${machine.tag}`}
      write={write}
      onClose={onClose}
      initial={{
        model: machine.model,
        kind: machine.kind,
        zone: machine.zone,
        hostTag: machine.hostTag ?? '',
        dutyHoursPerDay: machine.dutyHoursPerDay,
        inServiceSince: machine.inServiceSince,
        warrantyUntil: machine.warrantyUntil ?? '',
        limits: machine.parts.map((p) => p.limitCelsius),
        joints: machine.parts.map((p) => p.interface),
        added: [],
      }}
    >
      <Form.Item name="model" label={t`Model`} rules={needed(t`The model`)}>
        <Input maxLength={80} />
      </Form.Item>
      <div className="two-fields">
        <Form.Item name="kind" label={t`Kind`}>
          <Select
            options={(['graphics-card', 'server', 'laptop', 'desktop'] as const).map((k) => ({
              value: k,
              label: word(k),
            }))}
          />
        </Form.Item>
        <Form.Item name="zone" label={t`Zone (another one moves it)`}>
          <Select
            showSearch={{ optionFilterProp: 'label' }}
            options={(zones.data ?? []).map((z) => ({ value: z.code, label: `${z.name} (${z.siteName})` }))}
          />
        </Form.Item>
        <Form.Item name="hostTag" label={t`Built into (tag)`}>
          <Input maxLength={80} />
        </Form.Item>
        <Form.Item name="dutyHoursPerDay" label={t`Hours a day under load`} rules={needed(t`A number`)}>
          <NumberField min={0} max={24} className="full" />
        </Form.Item>
        <Form.Item name="inServiceSince" label={t`In service since`} rules={needed(t`The date`)}>
          <Input type="date" />
        </Form.Item>
        <Form.Item name="warrantyUntil" label={t`Warranty until`}>
          <Input type="date" />
        </Form.Item>
      </div>
      {machine.parts.map((p, i) => (
        <div key={p.part} className="edit-part">
          <Form.Item
            name={['limits', i]}
            label={t`${capital(partName(p.part))}: limit, °${unit}`}
            rules={needed(t`The limit`)}
          >
            <TemperatureField min={20} max={300} className="full" disabled={removed.includes(p.part)} />
          </Form.Item>
          <Form.Item name={['joints', i]} label={t`Joint`}>
            <Select
              options={JOINTS}
              disabled={removed.includes(p.part)}
              aria-label={t`${capital(partName(p.part))}: joint`}
            />
          </Form.Item>
          <Form.Item label=" ">
            <Button
              onClick={() =>
                setRemoved(
                  removed.includes(p.part) ? removed.filter((r) => r !== p.part) : [...removed, p.part],
                )
              }
            >
              {removed.includes(p.part) ? t`Keep ${partName(p.part)}` : t`Remove ${partName(p.part)}`}
            </Button>
          </Form.Item>
        </div>
      ))}
      {removed.length > 0 && (
        <p className="quiet small">
          {t`The readings of a part that is removed are kept, and come back with it if it is added again.`}
        </p>
      )}
      <Form.List name="added">
        {(added, { add, remove }) => (
          <>
            {added.map(({ key, name }) => (
              <div key={key} className="edit-part">
                <Form.Item
                  name={[name, 'part']}
                  label={t`New part`}
                  rules={[
                    { required: true, message: t`The name is needed.` },
                    { pattern: PART_NAME, message: t`A lower-case word such as memory.` },
                  ]}
                >
                  <Input maxLength={40} placeholder="memory" />
                </Form.Item>
                <Form.Item
                  name={[name, 'limitCelsius']}
                  label={t`Limit, °${unit}`}
                  rules={needed(t`The limit`)}
                >
                  <TemperatureField min={20} max={300} className="full" />
                </Form.Item>
                <Form.Item name={[name, 'interface']} label={t`Joint`}>
                  <Select options={JOINTS} />
                </Form.Item>
                <Form.Item label=" ">
                  <Button onClick={() => remove(name)}>{t`Leave out`}</Button>
                </Form.Item>
              </div>
            ))}
            {machine.parts.length + added.length < MOST_PARTS && (
              <Button onClick={() => add({ interface: 'paste' })}>{t`Add a part`}</Button>
            )}
          </>
        )}
      </Form.List>
    </EditDialog>
  );
}
