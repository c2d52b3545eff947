import { t } from '@lingui/core/macro';
import { Button, Input, Modal, Radio, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, unwrap, type Schemas, type ServiceLevel } from '../../api/client';
import { useWrite } from '../../api/queries';
import { jobWords, levelName, LEVELS, SYMPTOM_WORDS } from '../../words/work';
import { fullDay, instant, kelvin, partName } from '../../words/format';
import { Refusal } from '../../ui/Refusal';
import { AskReason } from '../../ui/AskReason';
import { useWithdraw } from './Reports';
import { word } from '../../words/word';
import { PlainTable } from '../../ui/PlainTable';

type MachineAnswer = Schemas['MachineAnswer'];

interface Entry {
  at: string;
  text: React.ReactNode;
  struck?: string | null;
  action?: React.ReactNode;
}

const STEP_WORDS: Record<string, string> = {
  mount: t`A step where the cooler was lifted`,
  sensor: t`The sensor jumped`,
  unexplained: t`A change that nothing in this book explains`,
};

/** A machine's history: services, jobs, corrections, moves, newest first. */
export function Book({
  machine,
  steps,
}: {
  machine: MachineAnswer;
  steps: readonly Schemas['StepChange'][];
}) {
  const [voiding, setVoiding] = useState<Schemas['ServiceEntry'] | null>(null);
  const [adding, setAdding] = useState(false);
  const voidService = useWrite((input: { id: number; voided: boolean; reason: string | null }) =>
    unwrap(
      api.POST('/api/v1/assets/{tag}/services/{service}/void', {
        params: { path: { tag: machine.tag, service: input.id } },
        body: { voided: input.voided, reason: input.reason },
      }),
    ),
  );
  const withdraw = useWithdraw(machine.tag);
  const entries: Entry[] = [
    ...machine.symptoms.map((s) => ({
      at: s.date,
      text: t`Reported: ${SYMPTOM_WORDS[s.kind]}${s.note ? `, “${s.note}”` : ''}`,
      struck: s.withdrawnReason,
      action: withdraw.action(s),
    })),
    ...machine.services.map((s) => ({
      at: s.date,
      text: (
        <>
          {t`Service: ${levelName(s.level)}`}
          {s.jobId !== null && (
            <>
              {' '}
              · <Link to={`/bench/${String(s.jobId)}`}>{t`job ${s.jobId}`}</Link>
            </>
          )}
          {s.by && ` · ${s.by}`}
          {s.fanFailed !== null &&
            ` · ${s.fanFailed ? t`the fan had failed` : t`the fan was changed in time`}`}
          {s.proven && ` · ${s.proven.replaceAll('-', ' ')}`}
          <span className="small quiet block">{renewedWords(s)}</span>
        </>
      ),
      struck: s.voidedReason,
      action: (
        <Button
          size="small"
          type="text"
          onClick={() =>
            s.voidedReason === null
              ? setVoiding(s)
              : voidService.mutate({ id: s.id, voided: false, reason: null })
          }
        >
          {s.voidedReason === null ? t`Strike out` : t`Restore`}
        </Button>
      ),
    })),
    ...machine.jobs.map((j) => ({
      at: j.closedAt ?? j.workDoneAt ?? j.startedAt,
      text: (
        <>
          <Link to={`/bench/${String(j.id)}`}>{t`Job ${j.id}: ${levelName(j.level)}`}</Link> · {jobWords(j)}
        </>
      ),
    })),
    ...machine.amendments.map((a) => ({
      at: a.madeAt,
      text:
        a.kind === 'corrected'
          ? t`Reading of ${instant(a.at)}: ${a.column ?? ''} corrected from ${String(a.before ?? '–')} to ${String(a.after ?? '–')} (${a.reason})`
          : t`Reading of ${instant(a.at)} ${word(a.kind)} (${a.reason})`,
    })),
    ...machine.changes.map((c) => ({
      at: c.madeAt,
      text: `${c.field}: ${c.before ?? '–'} → ${c.after ?? '–'}`,
    })),
    ...steps.map((s) => ({
      at: s.date,
      text: t`${STEP_WORDS[s.kind] ?? s.kind}: ${kelvin(s.kelvin)} on the ${partName(s.part)}`,
    })),
  ].sort((a, b) => b.at.localeCompare(a.at));
  return (
    <section className="section" aria-label={t`History`}>
      <div className="section-head">
        <h2>{t`History`}</h2>
        <Link to={`/log?asset=${encodeURIComponent(machine.tag)}`} className="quiet small alone">
          {t`the whole log book`}
        </Link>
        <Button size="small" onClick={() => setAdding(true)}>
          {t`Add a service`}
        </Button>
      </div>
      {machine.deviations.length > 0 && (
        <p className="bench-caution">
          <strong>{t`Deviates from good practice:`}</strong> {machine.deviations.join('; ')}.
        </p>
      )}
      {entries.length === 0 ? (
        <p className="quiet">
          {t`Nothing was done to it yet. Services can be added here, imported, or come from jobs at the bench.`}
        </p>
      ) : (
        <PlainTable>
          {entries.map((e, i) => (
            <tr key={i}>
              <td style={{ width: 170 }} className="quiet">
                {e.at.length > 10 ? instant(e.at) : fullDay(e.at)}
              </td>
              <td>
                <span className={e.struck ? 'struck' : undefined}>{e.text}</span>
                {e.struck && <span className="quiet"> {t`(struck out: ${e.struck})`}</span>}
              </td>
              <td style={{ width: 90, textAlign: 'right' }}>{e.action}</td>
            </tr>
          ))}
        </PlainTable>
      )}
      {voiding && (
        <AskReason
          title={t`Strike out the ${levelName(voiding.level)} of ${fullDay(voiding.date)}`}
          text={t`It stays in the book, struck through, and the judgement no longer counts it.`}
          busy={voidService.isPending}
          confirm={t`Strike out`}
          onClose={() => setVoiding(null)}
          onReason={(reason) => voidService.mutateAsync({ id: voiding.id, voided: true, reason })}
        />
      )}
      {withdraw.dialog}
      {adding && <AddService tag={machine.tag} onClose={() => setAdding(false)} />}
    </section>
  );
}

/** What a service renewed, by its steps. */
function renewedWords(service: Schemas['ServiceEntry']): string {
  const shares = Object.entries(service.renewed)
    .filter(([, share]) => share > 0)
    .map(([cause, share]) =>
      share >= 0.995 ? word(cause) : `${word(cause)} ${String(Math.round(share * 100))} %`,
    );
  const cooler = service.liftedCooler ? t`Cooler off` : t`Cooler on`;
  return shares.length > 0 ? t`${cooler}; renewed: ${shares.join(', ')}` : t`${cooler}; nothing renewed`;
}

function AddService({ tag, onClose }: { tag: string; onClose: () => void }) {
  const [date, setDate] = useState(new Date().toISOString().slice(0, 10));
  const [level, setLevel] = useState<ServiceLevel>('dust-out');
  const [fanFailed, setFanFailed] = useState<'failed' | 'in-time' | 'unknown'>('unknown');
  const write = useWrite(() =>
    unwrap(
      api.POST('/api/v1/assets/{tag}/services', {
        params: { path: { tag } },
        body: {
          date,
          level,
          fanFailed: level !== 'fan-swap' || fanFailed === 'unknown' ? null : fanFailed === 'failed',
        },
      }),
    ),
  );
  return (
    <Modal
      title={t`Add a service`}
      open
      onCancel={onClose}
      okText={t`Add`}
      confirmLoading={write.isPending}
      onOk={() => void write.mutateAsync(undefined).then(onClose, () => undefined)}
    >
      {write.isError && <Refusal error={write.error} />}
      <p>
        <label>
          {t`Day`}
          <Input type="date" value={date} onChange={(e) => setDate(e.target.value)} />
        </label>
      </p>
      <Select
        aria-label={t`Level`}
        value={level}
        onChange={setLevel}
        className="full"
        options={LEVELS.map((l) => ({
          value: l,
          label: l,
        }))}
      />
      {level === 'fan-swap' && (
        <Radio.Group
          className="apart-small"
          aria-label={t`Why the fan was changed`}
          value={fanFailed}
          onChange={(e) => setFanFailed(e.target.value as typeof fanFailed)}
          options={[
            { value: 'failed', label: t`the fan had failed` },
            { value: 'in-time', label: t`it was changed in time` },
            { value: 'unknown', label: t`nobody knows why it was changed` },
          ]}
        />
      )}
    </Modal>
  );
}
