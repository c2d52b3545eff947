import { Button, Skeleton } from 'antd';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, unwrap, type Schemas } from '../api/client';
import { useNotes, useWrite } from '../api/queries';
import { instant } from '../lib/format';
import { Refusal } from '../shell/Refusal';
import { usePageTitle } from '../shell/usePageTitle';
import { PartsLists } from './PartsLists';
import { PlanEditor } from './PlanEditor';
import '../bench/bench.css';

type Notes = Schemas['ModelNotes'];

/** What is known of one model: its plan, and everything that counts when it is opened. */
export function ModelNotesPage() {
  const model = useParams()['model'] ?? '';
  usePageTitle(model);
  const stored = useNotes(model);
  if (stored.isError) return <Refusal error={stored.error} retry={() => void stored.refetch()} />;
  if (!stored.data)
    return (
      <div className="page">
        <Skeleton active />
      </div>
    );
  return <Editor key={stored.data.version} stored={stored.data} />;
}

function Editor({ stored }: { stored: Schemas['NotesAnswer'] }) {
  const draft = `pyrometron.draft.notes.${stored.notes.model}.${String(stored.version)}`;
  const [notes, setNotes] = useState<Notes>(() => {
    const kept = localStorage.getItem(draft);
    return kept ? (JSON.parse(kept) as Notes) : stored.notes;
  });
  const save = useWrite(async () => {
    await unwrap(api.PUT('/api/v1/models/notes', { body: { notes, version: stored.version } }));
    localStorage.removeItem(draft);
  });
  const change = (next: Partial<Notes>) => {
    const changed = { ...notes, ...next };
    localStorage.setItem(draft, JSON.stringify(changed));
    setNotes(changed);
  };
  return (
    <div className="page" style={{ maxWidth: 900 }}>
      <h1>{notes.model}</h1>
      <p className="quiet">
        {stored.version === 0
          ? 'Nothing is noted of this model yet: the next job on it writes down its screws and connectors, or begin here.'
          : `Noted ${stored.changedAt ? instant(stored.changedAt) : ''}`}
        {stored.learntFromJob !== null && (
          <>
            {' '}
            from <Link to={`/bench/${String(stored.learntFromJob)}`}>job {stored.learntFromJob}</Link>
          </>
        )}
        {stored.coolerOrder.length > 0 && `. The cooler is tightened ${stored.coolerOrder.join('–')}.`}
      </p>
      {save.isError && <Refusal error={save.error} />}
      <PlanEditor notes={notes} order={stored.coolerOrder} change={change} />
      <PartsLists notes={notes} change={change} />
      <div className="bench-more">
        <Button
          type="primary"
          size="large"
          loading={save.isPending}
          disabled={notes === stored.notes}
          onClick={() => save.mutate(undefined)}
        >
          Keep these notes
        </Button>
        {notes !== stored.notes && (
          <Button
            onClick={() => {
              localStorage.removeItem(draft);
              setNotes(stored.notes);
            }}
          >
            Back to what is kept
          </Button>
        )}
        {save.isSuccess && <span role="status">Kept.</span>}
      </div>
    </div>
  );
}
