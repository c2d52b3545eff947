import { Button, Input, InputNumber, Segmented, Select, Skeleton } from 'antd';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, unwrap, type Schemas } from '../api/client';
import { useNotes, useWrite } from '../api/queries';
import { instant } from '../lib/format';
import { Refusal } from '../shell/Refusal';
import { usePageTitle } from '../shell/usePageTitle';
import { ModelPlan, type Grip } from './ModelPlan';
import '../bench/bench.css';

type Notes = Schemas['ModelNotes'];
type Screw = Schemas['Screw'];
type Pad = Schemas['PadNote'];

const PLACES: readonly Schemas['ScrewPlace'][] = ['cover', 'shroud', 'fan', 'back-plate', 'cooler', 'board'];
const KINDS: readonly Schemas['ConnectorKind'][] = [
  'fan-lead',
  'battery',
  'display',
  'ribbon',
  'antenna',
  'power',
  'data',
  'sensor',
];

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
  const [grip, setGrip] = useState<Grip | null>(null);
  const save = useWrite(async () => {
    await unwrap(api.PUT('/api/v1/models/notes', { body: { notes, version: stored.version } }));
    localStorage.removeItem(draft);
  });
  const change = (next: Partial<Notes>) => {
    const changed = { ...notes, ...next };
    localStorage.setItem(draft, JSON.stringify(changed));
    setNotes(changed);
  };
  const screw = grip?.kind === 'screw' ? notes.screws.find((s) => s.number === grip.number) : undefined;
  const pad = grip?.kind === 'pad' ? notes.pads.find((p) => p.number === grip.number) : undefined;
  const setScrew = (number: number, next: Partial<Screw>) =>
    change({ screws: notes.screws.map((s) => (s.number === number ? { ...s, ...next } : s)) });
  const setPad = (number: number, next: Partial<Pad>) =>
    change({ pads: notes.pads.map((p) => (p.number === number ? { ...p, ...next } : p)) });
  const place = (xMm: number, yMm: number) => {
    if (screw) setScrew(screw.number, { xMm, yMm });
    else if (pad)
      setPad(pad.number, {
        xMm: Math.max(0, Math.min(notes.widthMm - pad.widthMm, Math.round(xMm - pad.widthMm / 2))),
        yMm: Math.max(0, Math.min(notes.heightMm - pad.heightMm, Math.round(yMm - pad.heightMm / 2))),
      });
  };
  const next = (numbers: readonly { number: number }[]) => Math.max(0, ...numbers.map((n) => n.number)) + 1;
  const addScrew = () => {
    const number = next(notes.screws);
    const like = notes.screws.at(-1);
    change({
      screws: [
        ...notes.screws,
        {
          number,
          place: like?.place ?? 'cover',
          xMm: Math.round(notes.widthMm / 2),
          yMm: Math.round(notes.heightMm / 2),
          lengthMm: like?.lengthMm ?? 5,
          driver: like?.driver ?? 'PH1',
          order: null,
        },
      ],
    });
    setGrip({ kind: 'screw', number });
  };
  const addPad = () => {
    const number = next(notes.pads);
    const like = notes.pads.at(-1);
    change({
      pads: [
        ...notes.pads,
        {
          number,
          part: like?.part ?? 'memory',
          xMm: Math.round(notes.widthMm / 2),
          yMm: Math.round(notes.heightMm / 2),
          widthMm: like?.widthMm ?? 12,
          heightMm: like?.heightMm ?? 7,
          thicknessMm: like?.thicknessMm ?? 1,
        },
      ],
    });
    setGrip({ kind: 'pad', number });
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
      <ModelPlan
        notes={notes}
        show="both"
        order={stored.coolerOrder}
        only={undefined}
        chosen={grip}
        onPick={setGrip}
        onPlace={place}
      />
      <p className="small quiet" role="status">
        {screw || pad
          ? 'Tap the plan to put it where it sits, or use the fields.'
          : 'Tap a screw or pad to take hold of it. Black screws hold the cooler.'}
      </p>
      <div className="bench-more">
        <Button onClick={addScrew}>Add a screw</Button>
        <Button onClick={addPad}>Add a pad</Button>
        <label>
          Plan, mm{' '}
          <InputNumber
            aria-label="Width of the plan, mm"
            min={10}
            max={2000}
            value={notes.widthMm}
            onChange={(v) => v && change({ widthMm: v })}
            style={{ width: 90 }}
          />{' '}
          ×{' '}
          <InputNumber
            aria-label="Height of the plan, mm"
            min={10}
            max={2000}
            value={notes.heightMm}
            onChange={(v) => v && change({ heightMm: v })}
            style={{ width: 90 }}
          />
        </label>
      </div>
      {screw && (
        <fieldset className="notes-row">
          <legend>Screw {screw.number}</legend>
          <Select
            aria-label="Where it sits"
            value={screw.place}
            options={PLACES.map((p) => ({ value: p, label: p }))}
            onChange={(place) => setScrew(screw.number, { place })}
            style={{ width: 120 }}
          />
          <Num label="x, mm" value={screw.xMm} onChange={(xMm) => setScrew(screw.number, { xMm })} />
          <Num label="y, mm" value={screw.yMm} onChange={(yMm) => setScrew(screw.number, { yMm })} />
          <Num
            label="length, mm"
            value={screw.lengthMm}
            onChange={(lengthMm) => setScrew(screw.number, { lengthMm })}
          />
          <label>
            bit{' '}
            <Input
              value={screw.driver}
              maxLength={40}
              onChange={(e) => setScrew(screw.number, { driver: e.target.value })}
              style={{ width: 80 }}
            />
          </label>
          <Num
            label="maker’s number"
            value={screw.order ?? null}
            onChange={(order) => setScrew(screw.number, { order })}
            onClear={() => setScrew(screw.number, { order: null })}
          />
          <Button
            onClick={() => {
              change({ screws: notes.screws.filter((s) => s.number !== screw.number) });
              setGrip(null);
            }}
          >
            Take it out
          </Button>
        </fieldset>
      )}
      {pad && (
        <fieldset className="notes-row">
          <legend>Pad {pad.number}</legend>
          <label>
            serves{' '}
            <Input
              value={pad.part}
              maxLength={40}
              onChange={(e) => setPad(pad.number, { part: e.target.value })}
              style={{ width: 110 }}
            />
          </label>
          <Num label="x, mm" value={pad.xMm} onChange={(xMm) => setPad(pad.number, { xMm })} />
          <Num label="y, mm" value={pad.yMm} onChange={(yMm) => setPad(pad.number, { yMm })} />
          <Num
            label="width, mm"
            value={pad.widthMm}
            onChange={(widthMm) => setPad(pad.number, { widthMm })}
          />
          <Num
            label="height, mm"
            value={pad.heightMm}
            onChange={(heightMm) => setPad(pad.number, { heightMm })}
          />
          <Num
            label="thickness, mm"
            value={pad.thicknessMm}
            onChange={(thicknessMm) => setPad(pad.number, { thicknessMm })}
          />
          <Button
            onClick={() => {
              change({ pads: notes.pads.filter((p) => p.number !== pad.number) });
              setGrip(null);
            }}
          >
            Take it out
          </Button>
        </fieldset>
      )}
      <section className="section">
        <h2>Chip and paste</h2>
        <div className="bench-more">
          <Segmented
            aria-label="Chip"
            value={notes.chip ?? ''}
            onChange={(v) => change({ chip: v === '' ? null : (v as Notes['chip']) })}
            options={[
              { value: 'bare', label: 'bare chip' },
              { value: 'lidded', label: 'lidded' },
              { value: '', label: 'not known' },
            ]}
          />
          <Segmented
            aria-label="Paste"
            value={notes.pattern ?? ''}
            onChange={(v) => change({ pattern: v === '' ? null : (v as Notes['pattern']) })}
            options={[
              { value: 'spread', label: 'spread' },
              { value: 'line', label: 'line' },
              { value: 'dot', label: 'dot' },
              { value: 'cross', label: 'cross' },
              { value: '', label: 'as usual' },
            ]}
          />
        </div>
      </section>
      <section className="section">
        <h2>Connectors</h2>
        {notes.connectors.map((c, i) => (
          <div key={i} className="notes-row">
            <Input
              aria-label="Name"
              value={c.name}
              maxLength={60}
              style={{ width: 200 }}
              onChange={(e) =>
                change({ connectors: at(notes.connectors, i, { ...c, name: e.target.value }) })
              }
            />
            <Select
              aria-label="Kind"
              value={c.kind}
              options={KINDS.map((k) => ({ value: k, label: k }))}
              style={{ width: 120 }}
              onChange={(kind) => change({ connectors: at(notes.connectors, i, { ...c, kind }) })}
            />
            <Num
              label="how many"
              value={c.count}
              onChange={(n) =>
                change({ connectors: at(notes.connectors, i, { ...c, count: Math.max(1, Math.round(n)) }) })
              }
            />
            <Button onClick={() => change({ connectors: notes.connectors.filter((_, n) => n !== i) })}>
              Take it out
            </Button>
          </div>
        ))}
        <Button
          onClick={() =>
            change({ connectors: [...notes.connectors, { name: 'Fan lead', kind: 'fan-lead', count: 1 }] })
          }
        >
          Add a connector
        </Button>
      </section>
      <section className="section">
        <h2>Fans</h2>
        {notes.fans.map((f, i) => (
          <div key={i} className="notes-row">
            <Input
              aria-label="Name"
              value={f.name}
              maxLength={60}
              style={{ width: 200 }}
              onChange={(e) => change({ fans: at(notes.fans, i, { ...f, name: e.target.value }) })}
            />
            <Segmented
              aria-label="How it comes off"
              value={f.comesOffAlone ? 'alone' : 'cooler'}
              onChange={(v) => change({ fans: at(notes.fans, i, { ...f, comesOffAlone: v === 'alone' }) })}
              options={[
                { value: 'alone', label: 'comes off alone' },
                { value: 'cooler', label: 'only with the cooler' },
              ]}
            />
            <Button onClick={() => change({ fans: notes.fans.filter((_, n) => n !== i) })}>
              Take it out
            </Button>
          </div>
        ))}
        <Button onClick={() => change({ fans: [...notes.fans, { name: 'left', comesOffAlone: true }] })}>
          Add a fan
        </Button>
      </section>
      <Sentences title="Clips" lines={notes.clips} onChange={(clips) => change({ clips })} />
      <Sentences title="Traps" lines={notes.traps} onChange={(traps) => change({ traps })} />
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

function at<T>(list: readonly T[], index: number, value: T): T[] {
  return list.map((v, i) => (i === index ? value : v));
}

function Num({
  label,
  value,
  onChange,
  onClear,
}: {
  label: string;
  value: number | null;
  onChange: (value: number) => void;
  onClear?: () => void;
}) {
  return (
    <label>
      {label}{' '}
      <InputNumber
        value={value}
        min={0}
        max={2000}
        style={{ width: 84 }}
        onChange={(v) => (v === null ? onClear?.() : onChange(v))}
      />
    </label>
  );
}

function Sentences({
  title,
  lines,
  onChange,
}: {
  title: string;
  lines: readonly string[];
  onChange: (lines: string[]) => void;
}) {
  return (
    <section className="section">
      <h2>{title}</h2>
      <Input.TextArea
        aria-label={title}
        rows={Math.max(2, lines.length)}
        value={lines.join('\n')}
        placeholder="one a line"
        onChange={(e) => onChange(e.target.value === '' ? [] : e.target.value.split('\n'))}
        onBlur={() => onChange(lines.map((l) => l.trim()).filter((l) => l !== ''))}
      />
    </section>
  );
}
