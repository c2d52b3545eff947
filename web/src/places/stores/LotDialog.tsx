import { t } from '@lingui/core/macro';
import { Form, Input, Select } from 'antd';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { EditDialog, needed } from '../../ui/EditDialog';
import { NumberField } from '../../ui/NumberField';
import { UNITS } from '../../words/amounts';

interface NewFields {
  product: string;
  amount: number | null;
  batch: string;
  place: string;
  expiresOn: string;
  widthMm: number | null;
  heightMm: number | null;
}

/** Something that came in: a tube, a bottle, some sheets, an off-cut. */
export function LotDialog({
  products,
  onClose,
}: {
  products: readonly Schemas['ProductAnswer'][];
  onClose: () => void;
}) {
  const write = useWrite((f: NewFields) =>
    unwrap(
      api.POST('/api/v1/stores/lots', {
        body: {
          ...f,
          expiresOn: f.expiresOn || null,
          cameOn: null,
          openedOn: null,
          pricePerUnit: null,
          widthMm: f.widthMm ?? null,
          heightMm: f.heightMm ?? null,
        },
      }),
    ),
  );
  return (
    <EditDialog<NewFields>
      title={t`Something came in`}
      initial={{
        product: products[0]?.code ?? '',
        amount: products[0]?.pack.amount ?? 1,
        batch: '',
        place: '',
        expiresOn: '',
        widthMm: null,
        heightMm: null,
      }}
      write={write}
      onClose={onClose}
    >
      <Form.Item name="product" label={t`What it is`}>
        <Select
          showSearch={{ optionFilterProp: 'label' }}
          options={products.map((p) => ({ value: p.code, label: p.name }))}
        />
      </Form.Item>
      <Form.Item noStyle shouldUpdate={(a: NewFields, b: NewFields) => a.product !== b.product}>
        {({ getFieldValue }) => {
          const product = products.find((p) => p.code === getFieldValue('product'));
          return (
            <div className="two-fields">
              <Form.Item
                name="amount"
                label={t`How much, ${UNITS[product?.unit ?? 'piece']!}`}
                rules={needed(t`An amount`)}
              >
                <NumberField min={0} />
              </Form.Item>
              <Form.Item name="batch" label={t`Batch, where it has one`}>
                <Input maxLength={80} />
              </Form.Item>
              {product?.kind === 'pads' && (
                <>
                  <Form.Item name="widthMm" label={t`Width, mm, of an off-cut`}>
                    <NumberField min={1} />
                  </Form.Item>
                  <Form.Item name="heightMm" label={t`Height, mm, of an off-cut`}>
                    <NumberField min={1} />
                  </Form.Item>
                </>
              )}
            </div>
          );
        }}
      </Form.Item>
      <div className="two-fields">
        <Form.Item name="place" label={t`Where it stands`} rules={needed(t`A place`)}>
          <Input maxLength={80} />
        </Form.Item>
        <Form.Item name="expiresOn" label={t`Use by, as printed on it`}>
          <Input type="date" />
        </Form.Item>
      </div>
    </EditDialog>
  );
}

interface Fields {
  batch: string;
  place: string;
  openedOn: string;
  expiresOn: string;
  pricePerUnit: number | null;
}

/** What is known of a lot besides its amount. */
export function EditLot({ lot, onClose }: { lot: Schemas['LotAnswer']; onClose: () => void }) {
  const write = useWrite((f: Fields) =>
    unwrap(
      api.PUT('/api/v1/stores/lots/{id}', {
        params: { path: { id: lot.id } },
        body: {
          batch: f.batch || null,
          place: f.place,
          openedOn: f.openedOn || null,
          expiresOn: f.expiresOn || null,
          pricePerUnit: f.pricePerUnit,
          badBecause: lot.badBecause,
        },
      }),
    ),
  );
  return (
    <EditDialog<Fields>
      title={t`Lot ${lot.id}`}
      initial={{
        batch: lot.batch ?? '',
        place: lot.place,
        openedOn: lot.openedOn ?? '',
        expiresOn: lot.expiresOn ?? '',
        pricePerUnit: lot.pricePerUnit,
      }}
      write={write}
      onClose={onClose}
    >
      <div className="two-fields">
        <Form.Item name="place" label={t`Where it stands`} rules={needed(t`A place`)}>
          <Input maxLength={80} />
        </Form.Item>
        <Form.Item name="batch" label={t`Batch, where it has one`}>
          <Input maxLength={80} />
        </Form.Item>
        <Form.Item name="openedOn" label={t`Opened on`}>
          <Input type="date" />
        </Form.Item>
        <Form.Item name="expiresOn" label={t`Use by, as printed on it`}>
          <Input type="date" />
        </Form.Item>
        <Form.Item name="pricePerUnit" label={t`Price of a unit`}>
          <NumberField min={0} />
        </Form.Item>
      </div>
    </EditDialog>
  );
}

interface ThrownFields {
  amount: number | null;
  reason: string;
}

/** A part of a lot, or all of it, that is thrown away; it stays told among what came and went. */
export function ThrowAway({ lot, onClose }: { lot: Schemas['LotAnswer']; onClose: () => void }) {
  const write = useWrite((body: ThrownFields) =>
    unwrap(api.POST('/api/v1/stores/lots/{id}/throw-away', { params: { path: { id: lot.id } }, body })),
  );
  return (
    <EditDialog<ThrownFields>
      title={t`Throw away of lot ${lot.id}`}
      initial={{ amount: lot.amount, reason: '' }}
      write={write}
      onClose={onClose}
    >
      <Form.Item name="amount" label={t`How much, ${UNITS[lot.unit]!}`} rules={needed(t`An amount`)}>
        <NumberField min={0} max={lot.amount} />
      </Form.Item>
      <Form.Item name="reason" label={t`Why?`} rules={needed(t`A reason`)}>
        <Input maxLength={300} />
      </Form.Item>
    </EditDialog>
  );
}
