import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { useQuery } from '@tanstack/react-query';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { fullDay } from '../../words/format';
import { Columns } from './Columns';
import { Refusal } from '../../ui/Refusal';
import './intake.css';
import { RefusedLines } from './RefusedLines';
import { takeTable, type Settled } from '../../api/takeTable';
import { say } from '../../words/message';
import { word } from '../../words/word';
import { PlainTable } from '../../ui/PlainTable';

type Answer = Schemas['TableAnswer'];

const FIELDS: Record<string, string> = {
  tag: t`Tag`,
  kind: t`Kind`,
  model: t`Model`,
  site: t`Site`,
  zone: t`Zone or room`,
  dust: t`Dust`,
  designAmbientCelsius: t`Warmest intake air, °C`,
  altitudeMetres: t`Altitude, m`,
  dutyHoursPerDay: t`Hours a day`,
  inServiceSince: t`In service since`,
  warrantyUntil: t`Warranty until`,
  hostTag: t`Built into`,
  lastServiceDate: t`Last service`,
  lastServiceLevel: t`Level of the last service`,
  limitCelsius: t`Limit of the main part, °C`,
  ignore: t`leave it out`,
};

const MEANINGS: Record<string, string> = {
  'day-month': t`day first`,
  'month-day': t`month first`,
};

/** Words that a question can be answered with stand for a column, or for a word in a cell. */
const isField = (choice: string) => choice in FIELDS;

/** A table of machines before it is taken: what each column holds, what it would change, what cannot be taken, what is asked. */
export function TableTake({
  name,
  text,
  onLeave,
}: {
  name: string;
  text: Blob | string;
  onLeave: () => void;
}) {
  const [map, setMap] = useState<Settled>({});
  const [means, setMeans] = useState<Settled>({});
  const take = useWrite(() => takeTable(text, map, means, false));
  const preview = useQuery({
    queryKey: ['table', name, map, means],
    queryFn: () => takeTable(text, map, means, true),
    retry: false,
    placeholderData: (before) => before,
    enabled: !take.isSuccess,
  });
  const settle = (about: string, choice: string) =>
    isField(choice) ? setMap({ ...map, [about]: choice }) : setMeans({ ...means, [about]: choice });
  const answer = take.data ?? preview.data;
  return (
    <section className="section" aria-label={t`Table: ${name}`}>
      <div className="section-head">
        <h2>{take.isSuccess ? t`Imported: ${name}` : t`Preview: ${name}`}</h2>
        <Button onClick={onLeave}>{take.isSuccess ? t`Close` : t`Cancel`}</Button>
      </div>
      {preview.isError && <Refusal error={preview.error} />}
      {take.isError && <Refusal error={take.error} />}
      {preview.isPending && <p role="status">{t`Reading the table …`}</p>}
      {answer && (
        <>
          <p role="status">
            <Trans>
              <strong>{plural(answer.created, { one: '# machine', other: '# machines' })} new</strong>,{' '}
              {answer.updated} changed, {answer.unchanged} as they were
            </Trans>
            {answer.refusedCount > 0 &&
              t`, ${plural(answer.refusedCount, { one: '# line', other: '# lines' })} left out`}
            .
          </p>
          {!take.isSuccess && (
            <>
              <Questions questions={answer.questions} onAnswer={settle} />
              <Columns
                columns={answer.columns}
                fields={FIELDS}
                onSettle={(header, field) => setMap({ ...map, [header]: field })}
              />
              <Preview machines={answer.preview} total={answer.created + answer.updated + answer.unchanged} />
              <Defaults defaults={answer.defaults} />
            </>
          )}
          <RefusedLines refused={answer.refused} total={answer.refusedCount} />
          {take.isSuccess && (
            <div className="bench-more">
              <Link to="/">
                <Button type="primary">{t`To Rounds`}</Button>
              </Link>
              <Link to="/round">
                <Button>{t`A round: type readings`}</Button>
              </Link>
            </div>
          )}
          {!take.isSuccess && (
            <Button
              type="primary"
              size="large"
              loading={take.isPending}
              disabled={answer.created + answer.updated === 0}
              onClick={() => take.mutate(undefined)}
            >
              {t`Import ${plural(answer.created + answer.updated, { one: '# machine', other: '# machines' })}`}
            </Button>
          )}
        </>
      )}
    </section>
  );
}

function Questions({
  questions,
  onAnswer,
}: {
  questions: Answer['questions'];
  onAnswer: (about: string, choice: string) => void;
}) {
  if (questions.length === 0) return null;
  return (
    <div className="table-questions">
      {questions.map((q) => (
        <label key={q.about}>
          {say(q.says)}
          <Select
            aria-label={say(q.says)}
            placeholder={t`choose`}
            style={{ minWidth: 200 }}
            onChange={(choice: string) => onAnswer(q.about, choice)}
            options={q.choices.map((c) => ({ value: c, label: FIELDS[c] ?? MEANINGS[c] ?? c }))}
          />
        </label>
      ))}
    </div>
  );
}

function Preview({ machines, total }: { machines: Answer['preview']; total: number }) {
  if (machines.length === 0) return null;
  return (
    <div className="scroll-x apart">
      <PlainTable
        head={
          <>
            <th>{t`tag`}</th>
            <th>{t`kind`}</th>
            <th>{t`model`}</th>
            <th>{t`zone`}</th>
            <th className="num">{t`hours a day`}</th>
            <th>{t`in service since`}</th>
            <th>{t`last service`}</th>
          </>
        }
      >
        {machines.map((m) => (
          <tr key={m.tag}>
            <td className="figures">{m.tag}</td>
            <td>{word(m.kind)}</td>
            <td>{m.model}</td>
            <td>{m.zone}</td>
            <td className="num">{m.dutyHoursPerDay}</td>
            <td>{fullDay(m.inServiceSince)}</td>
            <td>{m.lastService ? fullDay(m.lastService) : '–'}</td>
          </tr>
        ))}
      </PlainTable>
      {total > machines.length && <p className="quiet small">{t`and ${total - machines.length} more`}</p>}
    </div>
  );
}

function Defaults({ defaults }: { defaults: Answer['defaults'] }) {
  if (defaults.length === 0) return null;
  return (
    <>
      <p className="quiet apart">
        {t`What the table does not say is filled in; correct it on each machine:`}
      </p>
      <ul className="quiet">
        {defaults.map((d) => (
          <li key={`${d.field} ${d.value}`}>
            {t`${FIELDS[d.field] ?? (d.field === 'parts' ? t`Parts and limits` : d.field)}: ${d.value} (${d.machines.toLocaleString()} times)`}
          </li>
        ))}
      </ul>
    </>
  );
}
