import { t } from '@lingui/core/macro';
import { Button, Form, Input, Select } from 'antd';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { NumberField } from '../../ui/NumberField';
import { TemperatureField } from '../../ui/TemperatureField';
import { useTemperature } from '../../words/format';
import { EditDialog, needed } from '../../ui/EditDialog';
import { Refusal } from '../../ui/Refusal';

interface Fields {
  name: string;
  dust: Schemas['DustClass'];
  designAmbientCelsius: number;
  siteName: string;
  altitudeMetres: number;
  timeZone: string;
}

/** What a room is planned for where nobody says otherwise, °C: common practice, no source. */
const USUAL_WARMEST = 30;

/** Adds a zone, to a site that is there or a new one. */
export function AddZone({
  site,
  onAdded,
  onClose,
}: {
  site: Schemas['ZoneAnswer'] | undefined;
  onAdded: (code: string) => void;
  onClose: () => void;
}) {
  const write = useWrite(async (body: Fields) => {
    const { code } = await unwrap(api.POST('/api/v1/zones', { body }));
    onAdded(code);
  });
  return (
    <EditDialog<Fields>
      title={t`Add a zone`}
      write={write}
      onClose={onClose}
      initial={{
        name: '',
        dust: 'normal',
        designAmbientCelsius: USUAL_WARMEST,
        siteName: site?.siteName ?? '',
        altitudeMetres: site?.altitudeMetres ?? 0,
        timeZone: site?.timeZone ?? '',
      }}
    >
      <ZoneFields />
    </EditDialog>
  );
}

/** Edits a zone, and the site that it belongs to; one without machines can be removed. */
export function EditZone({
  zone,
  empty,
  onClose,
}: {
  zone: Schemas['ZoneAnswer'];
  empty: boolean;
  onClose: () => void;
}) {
  const path = { code: zone.code };
  const write = useWrite((body: Fields) =>
    unwrap(api.PUT('/api/v1/zones/{code}', { params: { path }, body })),
  );
  const remove = useWrite(() => unwrap(api.DELETE('/api/v1/zones/{code}', { params: { path } })));
  return (
    <EditDialog<Fields>
      title={t`Edit ${zone.name}`}
      write={write}
      onClose={onClose}
      initial={{
        name: zone.name,
        dust: zone.dust,
        designAmbientCelsius: zone.designAmbientCelsius,
        siteName: zone.siteName,
        altitudeMetres: zone.altitudeMetres,
        timeZone: zone.timeZone ?? '',
      }}
    >
      <ZoneFields />
      {remove.isError && <Refusal error={remove.error} />}
      {empty ? (
        <Button
          loading={remove.isPending}
          onClick={() => void remove.mutateAsync(undefined).then(onClose, () => undefined)}
        >
          {t`Remove this zone`}
        </Button>
      ) : (
        <p className="quiet small">{t`Every machine here is judged anew with it.`}</p>
      )}
    </EditDialog>
  );
}

function ZoneFields() {
  const { unit } = useTemperature();
  return (
    <>
      <Form.Item name="name" label={t`Name of the zone`} rules={needed(t`The name`)}>
        <Input maxLength={80} />
      </Form.Item>
      <div className="two-fields">
        <Form.Item name="dust" label={t`Dust in its air`}>
          <Select options={(['clean', 'normal', 'heavy'] as const).map((value) => ({ value }))} />
        </Form.Item>
        <Form.Item
          name="designAmbientCelsius"
          label={t`Warmest air it is planned for, °${unit}`}
          rules={needed(t`The temperature`)}
        >
          <TemperatureField min={-40} max={80} className="full" />
        </Form.Item>
        <Form.Item name="siteName" label={t`Name of the site`} rules={needed(t`The name`)}>
          <Input maxLength={80} />
        </Form.Item>
        <Form.Item
          name="altitudeMetres"
          label={t`Site: metres above sea level`}
          rules={needed(t`The height`)}
        >
          <NumberField min={-500} max={9000} className="full" />
        </Form.Item>
        <Form.Item name="timeZone" label={t`Site: time zone`}>
          <Select
            showSearch
            options={[
              { value: '', label: t`that of the server` },
              ...Intl.supportedValuesOf('timeZone').map((value) => ({
                value,
                label: value.replace(/_/g, ' '),
              })),
            ]}
          />
        </Form.Item>
      </div>
    </>
  );
}
