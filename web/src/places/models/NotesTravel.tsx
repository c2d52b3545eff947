import { plural, t } from '@lingui/core/macro';
import { Alert, Button, Radio } from 'antd';
import { useRef, useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { Refusal } from '../../ui/Refusal';
import '../../ui/work.css';
import { PlainTable } from '../../ui/PlainTable';
import { aboutWords } from './draft';

type Document = Schemas['NotesDocument'];
type Prefer = 'here' | 'there';

/** Notes from house to house: all of them as a file, and a file laid over those of this house. */
export function NotesTravel({ noted }: { noted: boolean }) {
  const file = useRef<HTMLInputElement>(null);
  const [document, setDocument] = useState<Document | null>(null);
  const [unread, setUnread] = useState<string | null>(null);
  const read = async (chosen: File | undefined) => {
    setUnread(null);
    setDocument(null);
    if (!chosen) return;
    try {
      setDocument(JSON.parse(await chosen.text()) as Document);
    } catch {
      setUnread(t`${chosen.name} is no notes file: choose one that Export notes wrote.`);
    }
    if (file.current) file.current.value = '';
  };
  return (
    <>
      <div className="bench-more">
        {noted && (
          <a href="/api/v1/models/notes/export" download="notes.json">
            <Button>{t`Export notes`}</Button>
          </a>
        )}
        <Button onClick={() => file.current?.click()}>{t`Import notes …`}</Button>
        <input
          ref={file}
          type="file"
          accept=".json,application/json"
          hidden
          aria-label={t`Notes file`}
          onChange={(e) => void read(e.target.files?.[0])}
        />
      </div>
      {unread && <Alert type="error" role="alert" title={unread} />}
      {document && (
        <Preview key={JSON.stringify(document)} document={document} onDone={() => setDocument(null)} />
      )}
    </>
  );
}

function Preview({ document, onDone }: { document: Document; onDone: () => void }) {
  const [prefer, setPrefer] = useState<Prefer>('here');
  const send = useWrite((dryRun: boolean) =>
    unwrap(
      api.POST('/api/v1/models/notes/import', {
        params: { query: { dryRun, prefer } },
        body: document,
      }),
    ),
  );
  const answer = send.data;
  const kept = send.isSuccess && !send.variables;
  return (
    <section className="section" aria-label={t`Notes to import`}>
      {send.isError && <Refusal error={send.error} />}
      {answer && (
        <p role="status">
          {t`${kept ? t`Imported: ` : t`It would be: `}${plural(answer.created.length, { one: '# model', other: '# models' })} new, ${answer.merged.length} added to, ${answer.unchanged.length} as they are.`}
          {answer.withoutMachines.length > 0 &&
            t` Kept for machines still to come: ${answer.withoutMachines.join(', ')}.`}
        </p>
      )}
      {answer && answer.differences.length > 0 && (
        <>
          <PlainTable
            head={
              <>
                <th>{t`model`}</th>
                <th>{t`what`}</th>
                <th>{t`here`}</th>
                <th>{t`in the file`}</th>
              </>
            }
          >
            {answer.differences.map((d) => (
              <tr key={`${d.model} ${d.about}`}>
                <td>{d.model}</td>
                <td>{aboutWords(d.about)}</td>
                <td>{d.here}</td>
                <td>{d.there}</td>
              </tr>
            ))}
          </PlainTable>
          {!kept && (
            <Radio.Group value={prefer} onChange={(e) => setPrefer(e.target.value as Prefer)}>
              <Radio value="here">{t`keep what is here`}</Radio>
              <Radio value="there">{t`take what is in the file`}</Radio>
            </Radio.Group>
          )}
        </>
      )}
      <div className="bench-more">
        {kept ? (
          <Button onClick={onDone}>{t`Close`}</Button>
        ) : answer ? (
          <Button type="primary" loading={send.isPending} onClick={() => send.mutate(false)}>
            {t`Import`}
          </Button>
        ) : (
          <Button type="primary" loading={send.isPending} onClick={() => send.mutate(true)}>
            {t`See what it would change`}
          </Button>
        )}
        {!kept && <Button onClick={onDone}>{t`Leave it`}</Button>}
      </div>
    </section>
  );
}
