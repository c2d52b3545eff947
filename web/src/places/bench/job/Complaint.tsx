import { t } from '@lingui/core/macro';
import { Button, Input, Modal, Segmented, Select } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../../api/client';
import { AskFields } from './AskFields';
import type { BenchJob } from '../useBenchJob';
import { COMPLAINTS } from '../../../words/work';
import { NumberField } from '../../../ui/NumberField';

type Kind = Schemas['ComplaintKind'];

/** What brought the machine in, and whether it happened here too. */
export function Complaint({ job, write }: BenchJob) {
  const [open, setOpen] = useState(false);
  const c = job.complaint;
  const closed = job.state === 'proven' || job.state === 'abandoned';
  if (closed && !c) return null;
  return (
    <section className="section" aria-label={t`Complaint`}>
      <div className="section-head">
        <h2>{t`Complaint`}</h2>
        {!closed && (
          <Button size="small" onClick={() => setOpen(true)}>
            {c ? t`Change` : t`Write one down`}
          </Button>
        )}
      </div>
      {c ? (
        <p>
          {c.what === 'other' ? c.inWords : t`It ${COMPLAINTS[c.what]}`}
          {c.load && t` under ${c.load}`}
          {typeof c.minutesToFailure === 'number' && t` after ${String(c.minutesToFailure)} minutes`}
          {c.reproduced === true && t`, seen at the bench`}
          {c.reproduced === false && t`, not seen at the bench`}.
          {typeof c.minutesToFailure === 'number' && job.state !== 'proven' && (
            <> {t`It counts as fixed once it has run ${String(2 * c.minutesToFailure)} minutes.`}</>
          )}
          {job.complaintFixed !== null && (
            <strong> {job.complaintFixed ? t`It is gone.` : t`It is not gone.`}</strong>
          )}
        </p>
      ) : (
        <p className="quiet">
          {t`None. Came in because it switches off, crashes, is slow or loud, got wet, smells or fell? Write it down first: a wet machine is not run.`}
        </p>
      )}
      {open && <ComplaintForm job={job} write={write} onClose={() => setOpen(false)} />}
    </section>
  );
}

function ComplaintForm({ job, write, onClose }: BenchJob & { onClose: () => void }) {
  const c = job.complaint;
  const [what, setWhat] = useState<Kind>(c?.what ?? 'switches-off');
  const [load, setLoad] = useState(c?.load ?? '');
  const [words, setWords] = useState(c?.inWords ?? '');
  const [minutes, setMinutes] = useState<number | null>(c?.minutesToFailure ?? null);
  const [seen, setSeen] = useState<'yes' | 'no' | 'untried'>(
    c?.reproduced === true ? 'yes' : c?.reproduced === false ? 'no' : 'untried',
  );
  return (
    <Modal
      title={t`What is complained of`}
      open
      onCancel={onClose}
      okText={t`Keep`}
      okButtonProps={{ disabled: what === 'other' && words.trim() === '' }}
      onOk={() =>
        void write({
          kind: 'complaint-recorded',
          what,
          load: load.trim() || null,
          minutesToFailure: minutes,
          reproduced: seen === 'untried' ? null : seen === 'yes',
          inWords: words.trim() || null,
        }).then(onClose)
      }
    >
      <AskFields>
        <Select<Kind>
          aria-label={t`It`}
          value={what}
          onChange={setWhat}
          options={(Object.keys(COMPLAINTS) as Kind[]).map((k) => ({ value: k, label: COMPLAINTS[k] }))}
        />
        <label>
          {t`In words`}
          {what === 'other' && t` (needed)`}
          <Input value={words} maxLength={500} onChange={(e) => setWords(e.target.value)} />
        </label>
        <label>
          {t`Under which load`}
          <Input value={load} maxLength={200} onChange={(e) => setLoad(e.target.value)} />
        </label>
        <label>
          {t`Minutes until it happens`}
          <NumberField min={0.5} max={10000} value={minutes} onChange={setMinutes} className="full" />
        </label>
        <Segmented<'yes' | 'no' | 'untried'>
          block
          aria-label={t`Seen at the bench`}
          value={seen}
          onChange={setSeen}
          options={[
            { value: 'yes', label: t`seen here too` },
            { value: 'no', label: t`not seen here` },
            { value: 'untried', label: t`not tried` },
          ]}
        />
      </AskFields>
    </Modal>
  );
}
