import { t } from '@lingui/core/macro';
import { Button, Checkbox, Form, Input, Popconfirm, Select } from 'antd';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { EditDialog, needed } from '../../ui/EditDialog';
import { NumberField } from '../../ui/NumberField';
import { Refusal } from '../../ui/Refusal';
import { UNITS, unitOf } from '../../words/amounts';
import { PRODUCTS } from '../../words/work';
import { NATURES, VISCOSITIES } from './pasteWords';

type Facts = Schemas['ProductFactsDto'];

interface Fields {
  kind: Schemas['ProductKind'];
  name: string;
  facts: Facts;
  packAmount: number | null;
  packPrice: number | null;
  leadDays: number | null;
  lowAt: number | null;
  fits: string;
}

/** A code made of a name, such as `hemlock-8`. */
const codeFor = (name: string): string =>
  name
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-|-$/g, '')
    .slice(0, 30) || `p-${String(Date.now())}`;

/** A product: what is printed on it, and how it is bought. */
export function ProductDialog({
  product,
  onClose,
}: {
  product: Schemas['ProductAnswer'] | null;
  onClose: () => void;
}) {
  const write = useWrite((f: Fields) =>
    unwrap(
      api.PUT('/api/v1/stores/products/{code}', {
        params: { path: { code: product?.code ?? codeFor(f.name) } },
        body: {
          ...f,
          facts: { ...product?.facts, ...f.facts },
          fits: f.fits
            .split(',')
            .map((m) => m.trim())
            .filter(Boolean),
        },
      }),
    ),
  );
  return (
    <EditDialog<Fields>
      title={product ? product.name : t`New product`}
      initial={{
        kind: product?.kind ?? 'paste',
        name: product?.name ?? '',
        facts: product?.facts ?? {},
        packAmount: product?.pack.amount ?? null,
        packPrice: product?.pack.price ?? null,
        leadDays: product?.pack.leadDays ?? 7,
        lowAt: product?.lowAt ?? null,
        fits: product?.fits.join(', ') ?? '',
      }}
      write={write}
      onClose={onClose}
    >
      <div className="two-fields">
        <Form.Item name="kind" label={t`Kind`}>
          <Select options={Object.entries(PRODUCTS).map(([value, label]) => ({ value, label }))} />
        </Form.Item>
        <Form.Item name="name" label={t`Name on its label`} rules={needed(t`A name`)}>
          <Input maxLength={80} />
        </Form.Item>
      </div>
      <Form.Item noStyle shouldUpdate={(a: Fields, b: Fields) => a.kind !== b.kind}>
        {({ getFieldValue }) => <OfKind kind={getFieldValue('kind') as Schemas['ProductKind']} />}
      </Form.Item>
      <div className="two-fields">
        <Form.Item name="packPrice" label={t`Price of a pack`}>
          <NumberField min={0} />
        </Form.Item>
        <Form.Item name="leadDays" label={t`Days from order to shelf`}>
          <NumberField min={0} max={365} inputMode="numeric" />
        </Form.Item>
      </div>
      {product && <Remove product={product} onDone={onClose} />}
    </EditDialog>
  );
}

/** Takes a product off the list; refused while lots of it tell what went into machines. */
function Remove({ product, onDone }: { product: Schemas['ProductAnswer']; onDone: () => void }) {
  const write = useWrite(() =>
    unwrap(api.DELETE('/api/v1/stores/products/{code}', { params: { path: { code: product.code } } })),
  );
  return (
    <>
      {write.isError && <Refusal error={write.error} />}
      <Popconfirm
        title={t`Take ${product.name} off the list?`}
        okText={t`Take it off`}
        onConfirm={() => void write.mutateAsync(undefined).then(onDone, () => undefined)}
      >
        <Button danger loading={write.isPending}>{t`Take it off the list`}</Button>
      </Popconfirm>
    </>
  );
}

/** The fields of a kind. */
function OfKind({ kind }: { kind: Schemas['ProductKind'] }) {
  const unit = UNITS[unitOf(kind)]!;
  const conducts = kind === 'paste' || kind === 'pads' || kind === 'putty';
  return (
    <>
      <div className="two-fields">
        <Form.Item name="packAmount" label={t`In a pack, ${unit}`} rules={needed(t`An amount`)}>
          <NumberField min={0} />
        </Form.Item>
        <Form.Item name="lowAt" label={t`Low below, ${unit}`}>
          <NumberField min={0} />
        </Form.Item>
        {conducts && (
          <Form.Item name={['facts', 'conductivityWPerMK']} label={t`Conductivity, W/(m·K)`}>
            <NumberField min={0} />
          </Form.Item>
        )}
        {(kind === 'paste' || kind === 'putty') && (
          <Form.Item name={['facts', 'densityGPerCm3']} label={t`Density, g/cm³`}>
            <NumberField min={0} />
          </Form.Item>
        )}
        {kind === 'pads' && (
          <>
            <Form.Item
              name={['facts', 'thicknessMm']}
              label={t`Thickness, mm`}
              rules={needed(t`A thickness`)}
            >
              <NumberField min={0} step={0.5} />
            </Form.Item>
            <Form.Item
              name={['facts', 'sheetWidthMm']}
              label={t`Width of a sheet, mm`}
              rules={needed(t`A width`)}
            >
              <NumberField min={0} />
            </Form.Item>
            <Form.Item
              name={['facts', 'sheetHeightMm']}
              label={t`Height of a sheet, mm`}
              rules={needed(t`A height`)}
            >
              <NumberField min={0} />
            </Form.Item>
          </>
        )}
        {kind === 'paste' && (
          <>
            <Form.Item name={['facts', 'nature']} label={t`Beside open contacts`}>
              <Select
                allowClear
                options={Object.entries(NATURES).map(([value, label]) => ({ value, label }))}
              />
            </Form.Item>
            <Form.Item name={['facts', 'viscosity']} label={t`How thick it is`}>
              <Select
                allowClear
                options={Object.entries(VISCOSITIES).map(([value, label]) => ({ value, label }))}
              />
            </Form.Item>
          </>
        )}
        {kind === 'alcohol' && (
          <Form.Item name={['facts', 'strengthPercent']} label={t`Strength, %`}>
            <NumberField min={0} max={100} />
          </Form.Item>
        )}
        <Form.Item name={['facts', 'shelfMonths']} label={t`Keeps closed, months`}>
          <NumberField min={1} max={240} inputMode="numeric" />
        </Form.Item>
        <Form.Item name={['facts', 'openMonths']} label={t`Keeps once open, months`}>
          <NumberField min={1} max={240} inputMode="numeric" />
        </Form.Item>
      </div>
      {kind === 'paste' && (
        <div className="button-row before-more">
          <Form.Item name={['facts', 'abrasive']} valuePropName="checked" noStyle>
            <Checkbox>{t`it scratches`}</Checkbox>
          </Form.Item>
          <Form.Item name={['facts', 'needsWarming']} valuePropName="checked" noStyle>
            <Checkbox>{t`to be warmed first`}</Checkbox>
          </Form.Item>
          <Form.Item name={['facts', 'notOnAluminium']} valuePropName="checked" noStyle>
            <Checkbox>{t`not on aluminium`}</Checkbox>
          </Form.Item>
        </div>
      )}
      <Form.Item
        name="fits"
        label={t`Models that it is for; none for any`}
        extra={t`Their names, with commas`}
      >
        <Input maxLength={400} />
      </Form.Item>
    </>
  );
}
