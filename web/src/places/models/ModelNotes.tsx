import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Alert, Button } from 'antd';
import type { UseMutationResult } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { useNotes, useWrite } from '../../api/queries';
import { fullDay, instant } from '../../words/format';
import { Refusal } from '../../ui/Refusal';
import { usePageTitle } from '../../ui/usePageTitle';
import { aboutWords, differences, draftOf, dropDraft, keepDraft } from './draft';
import { PartsLists } from './PartsLists';
import { PlanEditor } from './PlanEditor';
import '../../ui/work.css';
import { PlainTable } from '../../ui/PlainTable';
import { Unready } from '../../ui/Unready';

type Notes = Schemas['ModelNotes'];

/** What is known of one model: its plan, and everything that counts when it is opened. */
export function ModelNotesPage() {
  const model = useParams()['model'] ?? '';
  usePageTitle(model);
  const stored = useNotes(model);
  // Above the editor, which begins anew with every version: what became of the last keeping stays told.
  const save = useWrite(async (body: Schemas['KeepNotes']) => {
    await unwrap(api.PUT('/api/v1/models/notes', { body }));
    dropDraft(model);
  });
  if (!stored.data) return <Unready of={[stored]} title={model} missing={t`model ${model}`} />;
  return <Editor key={stored.data.version} stored={stored.data} save={save} />;
}

/** Who wrote or saw what of this model, and how often. */
function WhoSaw({ stored }: { stored: Schemas['NotesAnswer'] }) {
  const lines = [
    ...(stored.notes.sources ?? []).map((s) => ({ ...s, how: t`wrote it` })),
    ...stored.seen.map((s) => ({ ...s, how: plural(s.times, { one: 'in one job', other: 'in # jobs' }) })),
  ];
  if (lines.length === 0) return null;
  return (
    <section className="section" aria-label={t`Who saw it`}>
      <div className="section-head">
        <h2>{t`Who saw it`}</h2>
      </div>
      <PlainTable>
        {lines.map((s) => (
          <tr key={`${s.about} ${s.by} ${s.how}`}>
            <td>{aboutWords(s.about)}</td>
            <td>{s.by}</td>
            <td className="quiet">{s.how}</td>
            <td className="quiet">{fullDay(s.last)}</td>
          </tr>
        ))}
      </PlainTable>
    </section>
  );
}

function Editor({
  stored,
  save,
}: {
  stored: Schemas['NotesAnswer'];
  save: UseMutationResult<void, Error, Schemas['KeepNotes']>;
}) {
  const { model } = stored.notes;
  const [begun, setBegun] = useState(() => draftOf(model));
  const notes = begun?.notes ?? stored.notes;
  useEffect(() => {
    if (begun) keepDraft(begun);
  }, [begun]);
  // Two fields may change in one breath, one left and the next pressed: each change is laid over the newest state. Whoever goes on
  // after the notice below has seen what others kept.
  const change = (next: Partial<Notes>) =>
    setBegun((now) => ({
      version: stored.version,
      notes: { ...(now?.notes ?? stored.notes), ...next },
    }));
  return (
    <div className="page broad">
      <h1>{notes.model}</h1>
      <p className="quiet">
        {stored.version === 0
          ? t`Nothing is noted of this model yet: the next job on it writes down its screws and connectors, or begin here.`
          : t`Noted ${stored.changedAt ? instant(stored.changedAt) : ''}`}
        {stored.learntFromJob !== null && (
          <>
            <Trans>
              {' '}
              from <Link to={`/bench/${String(stored.learntFromJob)}`}>job {stored.learntFromJob}</Link>
            </Trans>
          </>
        )}
        {stored.coolerOrder.length > 0 && t`. The cooler is tightened ${stored.coolerOrder.join('–')}.`}
      </p>
      {save.isError && <Refusal error={save.error} />}
      {begun && begun.version !== stored.version && (
        <Alert
          type="warning"
          role="alert"
          title={t`Somebody else, or a job, has changed these notes since you began.`}
          description={t`What you began is shown; theirs differ in: ${differences(begun.notes, stored.notes).join(', ') || t`nothing`}. To keep yours replaces theirs.`}
        />
      )}
      <PlanEditor notes={notes} order={stored.coolerOrder} change={change} />
      <PartsLists notes={notes} change={change} />
      <WhoSaw stored={stored} />
      <div className="bench-more">
        <Button
          type="primary"
          size="large"
          loading={save.isPending}
          disabled={!begun}
          onClick={() =>
            save.mutate({ notes, version: stored.version, by: localStorage.getItem('pyrometron.name') })
          }
        >
          {t`Keep these notes`}
        </Button>
        {begun && (
          <Button
            onClick={() => {
              dropDraft(model);
              setBegun(null);
            }}
          >
            {t`Back to what is kept`}
          </Button>
        )}
        {save.isSuccess && !begun && <span role="status">{t`Kept.`}</span>}
      </div>
    </div>
  );
}
