import { plural, t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Input } from 'antd';
import { useDeferredValue, useState } from 'react';
import { ProblemError, unwrap } from '../../api/client';
import { PlainTable } from '../../ui/PlainTable';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import {
  answerOf,
  callsOf,
  found,
  membersOf,
  resolved,
  typeOf,
  type Call,
  type OpenApi,
  type Schema,
} from './openapi';
import './reference.css';

/** So deep members of members are shown; the rest can be read in the document itself. */
const DEEPEST = 6;

/** Every call of the API, as the server describes it: for those who write programs against it. */
export function Reference() {
  usePageTitle(t`API reference`);
  const answer = useQuery({
    queryKey: ['openapi'],
    queryFn: async () => {
      const response = await fetch('/openapi/v1.json');
      return unwrap<OpenApi>(
        response.ok
          ? Promise.resolve({ data: (await response.json()) as OpenApi, response })
          : Promise.resolve({ error: (await response.json().catch(() => null)) as unknown, response }),
      );
    },
    staleTime: Infinity,
    retry: (failures, error) => failures < 2 && !(error instanceof ProblemError),
  });
  const [search, setSearch] = useState('');
  const sought = useDeferredValue(search);
  if (!answer.data) return <Unready of={[answer]} title={t`API reference`} />;
  const document = answer.data;
  const groups = found(callsOf(document), sought);
  const count = groups.reduce((n, group) => n + group.calls.length, 0);
  return (
    <div className="page broad">
      <h1>{t`API reference`}</h1>
      <p className="quiet">
        <Told text={document.info.description} />
      </p>
      <p className="quiet">
        {t`A program sends its key as Authorization: Bearer. Tools read the same as OpenAPI 3.1:`}{' '}
        <a href="/openapi/v1.json">
          <code>/openapi/v1.json</code>
        </a>
      </p>
      <Input
        aria-label={t`Search calls`}
        placeholder={t`a path, a word`}
        value={search}
        onChange={(e) => setSearch(e.target.value)}
        maxLength={80}
        allowClear
        style={{ maxWidth: 300 }}
      />
      <p className="quiet" role="status">
        {count === 0 ? t`Nothing found.` : plural(count, { one: '# call.', other: '# calls.' })}
      </p>
      {groups.map((group) => (
        <section key={group.name}>
          <h2 className="next-heading">
            <Told text={group.name} />
          </h2>
          <p className="quiet no-gap">
            <Told text={group.description} />
          </p>
          {group.calls.map((call) => (
            <CallPart key={call.operationId} call={call} document={document} />
          ))}
        </section>
      ))}
    </div>
  );
}

/** Words of the document, which is in English whatever the page is in; what stands between backticks is code. */
function Told({ text = '' }: { text?: string | undefined }) {
  return (
    <span lang="en" translate="no">
      {text.split('`').map((part, i) => (i % 2 === 1 ? <code key={i}>{part}</code> : part))}
    </span>
  );
}

/** One call: a line, and on request all of it. */
function CallPart({ call, document }: { call: Call; document: OpenApi }) {
  const [open, setOpen] = useState(false);
  return (
    <details className="api-call" id={call.operationId} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>
        <code className="figures api-method">{call.method}</code>
        <code className="figures">{call.path}</code>
        <span className="quiet">
          <Told text={call.summary} />
        </span>
      </summary>
      {open && <CallBody call={call} document={document} />}
    </details>
  );
}

function CallBody({ call, document }: { call: Call; document: OpenApi }) {
  const body = Object.entries(call.requestBody?.content ?? {});
  return (
    <div className="api-body">
      {call.description && (
        <p>
          <Told text={call.description} />
        </p>
      )}
      {call.parameters && call.parameters.length > 0 && (
        <PlainTable
          head={
            <>
              <th>{t`Parameter`}</th>
              <th>{t`Where`}</th>
              <th>{t`Takes`}</th>
              <th>{t`Meaning`}</th>
            </>
          }
        >
          {call.parameters.map((p) => (
            <tr key={`${p.in} ${p.name}`}>
              <td>
                <code className="figures">{p.name}</code>
              </td>
              <td>{p.required ? t`${p.in}, needed` : p.in}</td>
              <td>
                <code className="figures small">{typeOf(document, p.schema)}</code>
              </td>
              <td>
                <Told text={p.description} />
                {p.example !== undefined && (
                  <>
                    {' '}
                    <span className="quiet small">{t`such as`}</span>{' '}
                    <code className="small">{String(p.example)}</code>
                  </>
                )}
              </td>
            </tr>
          ))}
        </PlainTable>
      )}
      {body.map(([type, content]) => (
        <div key={type}>
          <h3>
            {t`Sent`} <code>{type}</code>
          </h3>
          {content.schema && <Members schema={content.schema} document={document} depth={0} />}
          {content.example !== undefined && (
            <>
              <h3>{t`For example`}</h3>
              <pre className="api-example" translate="no">
                {typeof content.example === 'string'
                  ? content.example
                  : JSON.stringify(content.example, null, 2)}
              </pre>
            </>
          )}
        </div>
      ))}
      <h3>{t`Answers`}</h3>
      {Object.entries(call.responses).map(([status, told]) => {
        const answer = answerOf(document, told);
        const content = Object.entries(answer.content ?? {});
        return (
          <div key={status}>
            <p className="no-gap">
              <code className="figures api-method">{status}</code> <Told text={answer.description} />{' '}
              <code className="quiet small">{content.map(([type]) => type).join(', ')}</code>
            </p>
            {status.startsWith('2') &&
              content.map(
                ([type, c]) =>
                  c.schema && <Members key={type} schema={c.schema} document={document} depth={0} />,
              )}
          </div>
        );
      })}
    </div>
  );
}

/** The members of a record, each with its own on request. */
function Members({ schema, document, depth }: { schema: Schema; document: OpenApi; depth: number }) {
  const members = membersOf(document, schema);
  const { required } = resolved(document, schema);
  if (!members)
    return (
      <p className="small no-gap api-plain">
        <code className="figures">{typeOf(document, schema)}</code>
      </p>
    );
  return (
    <ul className="api-members">
      {Object.entries(members).map(([name, member]) => (
        <li key={name}>
          <code className="figures">{name}</code>
          {required && !required.includes(name) && (
            <span className="quiet small"> {t`may be missing`}</span>
          )}{' '}
          <code className="figures small quiet">{typeOf(document, member)}</code>{' '}
          <Told text={resolved(document, member).description} />
          {depth < DEEPEST && membersOf(document, member) && (
            <Nested member={member} document={document} depth={depth + 1} />
          )}
        </li>
      ))}
    </ul>
  );
}

function Nested({ member, document, depth }: { member: Schema; document: OpenApi; depth: number }) {
  const [open, setOpen] = useState(false);
  return (
    <details onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="quiet small">{t`its members`}</summary>
      {open && <Members schema={member} document={document} depth={depth} />}
    </details>
  );
}
