import { t } from '@lingui/core/macro';
import { Input } from 'antd';
import { useEffect, useState } from 'react';
import { useOutbox } from '../../../api/outbox';
import type { BenchJob } from '../useBenchJob';

/** The job's note; what is typed is kept on this device until it is written. */
export function Note({ job, write }: BenchJob) {
  const draft = `pyrometron.draft.note.${String(job.id)}`;
  const [note, setNote] = useState(() => localStorage.getItem(draft) ?? job.note ?? '');
  const waits = useOutbox().waiting.some((w) => w.jobId === job.id && w.entry.kind === 'noted');
  const saved = job.note ?? '';
  const [known, setKnown] = useState(saved);
  // Somebody else's note replaces what is shown unless something is being typed here.
  if (saved !== known) {
    setKnown(saved);
    if (note === known) setNote(saved);
  }
  useEffect(() => {
    if (note === saved) localStorage.removeItem(draft);
    else localStorage.setItem(draft, note);
  }, [note, saved, draft]);
  return (
    <section className="section" aria-label={t`Note`}>
      <div className="section-head">
        <h2>{t`Note`}</h2>
        <span className="quiet small" role="status">
          {note !== saved ? t`saved when you leave the field` : waits ? t`kept on this device` : t`saved`}
        </span>
      </div>
      <Input.TextArea
        aria-label={t`Note`}
        rows={3}
        maxLength={2000}
        value={note}
        placeholder={t`What you saw: paste dry at the edges, a torn pad, a loud fan`}
        onChange={(e) => setNote(e.target.value)}
        onBlur={() => {
          if (note !== saved) void write({ kind: 'noted', text: note });
        }}
      />
    </section>
  );
}
