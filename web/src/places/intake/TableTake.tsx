import { useQuery } from '@tanstack/react-query';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { count, fullDay } from '../../words/format';
import { Columns } from './Columns';
import { Refusal } from '../../ui/Refusal';
import './intake.css';
import { RefusedLines } from './RefusedLines';
import { takeTable, type Settled } from '../../api/takeTable';

type Answer = Schemas['TableAnswer'];

const FIELDS: Record<string, string> = {
  tag: 'Tag',
  kind: 'Kind',
  model: 'Model',
  site: 'Site',
  zone: 'Zone or room',
  dust: 'Dust',
  designAmbientCelsius: 'Warmest intake air, °C',
  altitudeMetres: 'Altitude, m',
  dutyHoursPerDay: 'Hours a day',
  inServiceSince: 'In service since',
  warrantyUntil: 'Warranty until',
  hostTag: 'Built into',
  lastServiceDate: 'Last service',
  lastServiceLevel: 'Level of the last service',
  limitCelsius: 'Limit of the main part, °C',
  ignore: 'leave it out',
};

const MEANINGS: Record<string, string> = {
  'day-month': 'day first',
  'month-day': 'month first',
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
  const preview = useQuery({
    queryKey: ['table', name, map, means],
    queryFn: () => takeTable(text, map, means, true),
    retry: false,
    placeholderData: (before) => before,
  });
  const take = useWrite(() => takeTable(text, map, means, false));
  const settle = (about: string, choice: string) =>
    isField(choice) ? setMap({ ...map, [about]: choice }) : setMeans({ ...means, [about]: choice });
  const answer = take.data ?? preview.data;
  return (
    <section className="section" aria-label={`Table: ${name}`}>
      <div className="section-head">
        <h2>{take.isSuccess ? `Imported: ${name}` : `Preview: ${name}`}</h2>
        <Button onClick={onLeave}>{take.isSuccess ? 'Close' : 'Cancel'}</Button>
      </div>
      {preview.isError && <Refusal error={preview.error} />}
      {take.isError && <Refusal error={take.error} />}
      {preview.isPending && <p role="status">Reading the table …</p>}
      {answer && (
        <>
          <p role="status">
            <strong>{count(answer.created, 'machine')} new</strong>, {answer.updated} changed,{' '}
            {answer.unchanged} as they were
            {answer.refusedCount > 0 && `, ${count(answer.refusedCount, 'line')} left out`}.
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
                <Button type="primary">To Rounds</Button>
              </Link>
              <Link to="/round">
                <Button>A round: type readings</Button>
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
              Import {count(answer.created + answer.updated, 'machine')}
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
          {q.ask}
          <Select
            aria-label={q.ask}
            placeholder="choose"
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
    <div className="scroll-x" style={{ marginTop: 14 }}>
      <table className="plain-table">
        <thead>
          <tr>
            <th>tag</th>
            <th>kind</th>
            <th>model</th>
            <th>zone</th>
            <th className="num">hours a day</th>
            <th>in service since</th>
            <th>last service</th>
          </tr>
        </thead>
        <tbody>
          {machines.map((m) => (
            <tr key={m.tag}>
              <td className="figures">{m.tag}</td>
              <td>{m.kind}</td>
              <td>{m.model}</td>
              <td>{m.zone}</td>
              <td className="num">{m.dutyHoursPerDay}</td>
              <td>{fullDay(m.inServiceSince)}</td>
              <td>{m.lastService ? fullDay(m.lastService) : '–'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {total > machines.length && <p className="quiet small">and {total - machines.length} more</p>}
    </div>
  );
}

function Defaults({ defaults }: { defaults: Answer['defaults'] }) {
  if (defaults.length === 0) return null;
  return (
    <>
      <p className="quiet" style={{ marginTop: 14 }}>
        What the table does not say is filled in; correct it on each machine:
      </p>
      <ul className="quiet">
        {defaults.map((d) => (
          <li key={`${d.field} ${d.value}`}>
            {FIELDS[d.field] ?? (d.field === 'parts' ? 'Parts and limits' : d.field)}: {d.value} (
            {d.machines.toLocaleString()} times)
          </li>
        ))}
      </ul>
    </>
  );
}
