import { plural, t } from '@lingui/core/macro';
import { AutoComplete, Form, Input, Modal, Select } from 'antd';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite, useZones } from '../../api/queries';
import { useQuery } from '@tanstack/react-query';
import { needed } from '../EditDialog';
import { NumberField } from '../NumberField';
import { Refusal } from '../Refusal';
import { takeTable } from '../../api/takeTable';
import { runningTags, tableOf } from './running';
import { say } from '../../words/message';
import { word } from '../../words/word';

interface Fields {
  tag: string;
  howMany: number;
  kind: Schemas['AssetKind'];
  model: string;
  site: string;
  zone: string;
  dutyHoursPerDay: number | null;
  inServiceSince: string;
  warrantyUntil: string;
  lastServiceDate: string;
}

/** Adds a machine by hand, or many alike with running tags; what is left empty is put in by kind, or as its model has it. */
export function AddMachines({ like, onClose }: { like?: Schemas['MachineAnswer']; onClose: () => void }) {
  const [form] = Form.useForm<Fields>();
  const zones = useZones();
  const models = useQuery({ queryKey: ['models'], queryFn: () => unwrap(api.GET('/api/v1/models')) });
  const navigate = useNavigate();
  const [refused, setRefused] = useState<string | null>(null);
  const howMany = (Form.useWatch('howMany', form) as number | undefined) ?? 1;
  const write = useWrite(async (f: Fields) => {
    const { tag: first, howMany: many, ...rest } = f;
    const tags = runningTags(first.trim(), many);
    const table = tableOf(tags, rest);
    const answer = await takeTable(table, {}, {}, true);
    // What is there already is edited on its page, not overwritten from here.
    if (answer.refused.length === 0 && answer.created < tags.length)
      return {
        tags,
        why: plural(tags.length - answer.created, {
          one: '# of these tags is there already.',
          other: '# of these tags are there already.',
        }),
      };
    if (answer.refused.length > 0) return { tags, why: say(answer.refused[0]!.says) };
    await takeTable(table, {}, {}, false);
    return { tags, why: null };
  });
  const add = async () => {
    const fields = await form.validateFields();
    const { tags, why } = await write.mutateAsync(fields);
    setRefused(why);
    if (why) return;
    onClose();
    if (tags.length === 1) await navigate(`/machines/${encodeURIComponent(tags[0]!)}`);
  };
  const names = [...new Map((zones.data ?? []).map((z) => [z.siteName, z.site])).keys()];
  return (
    <Modal
      title={like ? t`Machines like ${like.tag}` : t`Add machines`}
      open
      width={560}
      onCancel={onClose}
      okText={howMany > 1 ? t`Add ${plural(howMany, { one: '# machine', other: '# machines' })}` : t`Add it`}
      confirmLoading={write.isPending}
      onOk={() => void add().catch(() => undefined)}
    >
      {write.isError && <Refusal error={write.error} />}
      {refused && <p role="alert">{refused}</p>}
      <Form<Fields>
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={{
          tag: '',
          howMany: 1,
          kind: like?.kind ?? 'desktop',
          model: like?.model ?? '',
          site: like?.site ?? '',
          zone: like?.zoneName ?? '',
          dutyHoursPerDay: like?.dutyHoursPerDay ?? null,
          inServiceSince: like?.inServiceSince ?? '',
          warrantyUntil: like?.warrantyUntil ?? '',
          lastServiceDate: '',
        }}
      >
        <div className="two-fields">
          <Form.Item name="tag" label={t`Tag`} rules={needed(t`The tag`)}>
            <Input maxLength={80} placeholder="PC-001" />
          </Form.Item>
          <Form.Item name="howMany" label={t`How many alike, with running tags`}>
            <NumberField min={1} max={500} precision={0} className="full" />
          </Form.Item>
          <Form.Item name="kind" label={t`Kind`}>
            <Select
              options={(['desktop', 'laptop', 'server', 'graphics-card'] as const).map((k) => ({
                value: k,
                label: word(k),
              }))}
            />
          </Form.Item>
          <Form.Item name="model" label={t`Model`} rules={needed(t`The model`)}>
            <AutoComplete
              options={(models.data ?? []).map((m) => ({ value: m.model }))}
              showSearch={{ filterOption: true }}
            />
          </Form.Item>
          <Form.Item name="site" label={t`Site`}>
            <AutoComplete options={names.map((value) => ({ value }))} placeholder={t`House`} />
          </Form.Item>
          <Form.Item name="zone" label={t`Zone or room`}>
            <AutoComplete
              options={(zones.data ?? []).map((z) => ({ value: z.name }))}
              placeholder={t`Main room`}
            />
          </Form.Item>
          <Form.Item name="dutyHoursPerDay" label={t`Hours a day under load`}>
            <NumberField min={0} max={24} className="full" placeholder={t`as usual for its kind`} />
          </Form.Item>
          <Form.Item name="inServiceSince" label={t`In service since`}>
            <Input type="date" />
          </Form.Item>
          <Form.Item name="warrantyUntil" label={t`Warranty until`}>
            <Input type="date" />
          </Form.Item>
          <Form.Item name="lastServiceDate" label={t`Last cleaned`}>
            <Input type="date" />
          </Form.Item>
        </div>
      </Form>
      <p className="quiet small">
        {t`Parts and limits are those of its model where the house has one, else the usual ones of its kind; they can be corrected on its page.`}
      </p>
    </Modal>
  );
}
