import { t } from '@lingui/core/macro';
import { Button, Input, Modal, Segmented } from 'antd';
import { useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { fullDay } from '../../words/format';
import { SYMPTOM_WORDS } from '../../words/work';
import { Refusal } from '../../ui/Refusal';
import { AskReason } from '../../ui/AskReason';
import { NumberField } from '../../ui/NumberField';

type Kind = Schemas['SymptomKind'];

/** Says what somebody saw or heard the machine do. */
export function ReportSymptom({ tag, onClose }: { tag: string; onClose: () => void }) {
  const [kind, setKind] = useState<Kind>('shutdown');
  const [date, setDate] = useState(new Date().toISOString().slice(0, 10));
  const [note, setNote] = useState('');
  const [minutes, setMinutes] = useState<number | null>(null);
  const write = useWrite(() =>
    unwrap(
      api.POST('/api/v1/assets/{tag}/symptoms', {
        params: { path: { tag } },
        body: { kind, date, note: note.trim() || null, minutesToFailure: minutes },
      }),
    ),
  );
  return (
    <Modal
      title={t`What does ${tag} do?`}
      open
      onCancel={onClose}
      okText={t`Report it`}
      confirmLoading={write.isPending}
      onOk={() => void write.mutateAsync(undefined).then(onClose, () => undefined)}
    >
      {write.isError && <Refusal error={write.error} />}
      <Segmented<Kind>
        vertical
        block
        aria-label={t`What it does`}
        value={kind}
        onChange={setKind}
        options={(Object.keys(SYMPTOM_WORDS) as Kind[]).map((k) => ({ value: k, label: SYMPTOM_WORDS[k] }))}
      />
      <p>
        <label>
          {t`Noticed on`}
          <Input type="date" value={date} onChange={(e) => setDate(e.target.value)} />
        </label>
      </p>
      {(kind === 'crash' || kind === 'shutdown' || kind === 'throttling') && (
        <p>
          <label>
            {t`After how many minutes under load, if known`}
            <NumberField
              min={0.1}
              max={10000}
              inputMode="decimal"
              className="full"
              value={minutes}
              onChange={setMinutes}
            />
          </label>
        </p>
      )}
      <label>
        {t`In their words`}
        <Input.TextArea rows={2} maxLength={500} value={note} onChange={(e) => setNote(e.target.value)} />
      </label>
      {(kind === 'wet' || kind === 'smell') && (
        <p className="bench-caution">
          {t`Switch it off and unplug it now. Disconnect a battery only if it is not swollen, hot or leaking; if it is, keep away and follow the site’s procedure.`}
        </p>
      )}
      <p className="quiet small">
        {t`A crash or a shutdown outranks every temperature: the machine stays at the head of the rounds until a run of twice that time (40 minutes where it is not known) passes without it, or somebody withdraws the report with a reason. A service alone does not clear it.`}
      </p>
    </Modal>
  );
}

/** A report in the machine's book, with the way to withdraw it. */
export function useWithdraw(tag: string) {
  const [withdrawing, setWithdrawing] = useState<Schemas['SymptomEntry'] | null>(null);
  const write = useWrite((input: { id: number; reason: string }) =>
    unwrap(
      api.POST('/api/v1/assets/{tag}/symptoms/{id}/withdraw', {
        params: { path: { tag, id: input.id } },
        body: { reason: input.reason },
      }),
    ),
  );
  return {
    action: (s: Schemas['SymptomEntry']) =>
      s.withdrawnReason === null ? (
        <Button size="small" type="text" onClick={() => setWithdrawing(s)}>
          {t`Withdraw`}
        </Button>
      ) : null,
    dialog: withdrawing && (
      <AskReason
        title={t`Withdraw the report of ${fullDay(withdrawing.date)}`}
        text={t`It stays in the book, struck through, and no longer counts.`}
        busy={write.isPending}
        confirm={t`Withdraw`}
        onClose={() => setWithdrawing(null)}
        onReason={(reason) => write.mutateAsync({ id: withdrawing.id, reason })}
      />
    ),
  };
}
