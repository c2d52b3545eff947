import { Button, Input, Segmented, Select } from 'antd';
import type { Schemas } from '../../api/client';
import { Num } from './Num';

type Notes = Schemas['ModelNotes'];

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

/** What is not on the plan: chip and paste, connectors, fans, clips and traps. */
export function PartsLists({ notes, change }: { notes: Notes; change: (next: Partial<Notes>) => void }) {
  return (
    <>
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
        <h2>Cooling</h2>
        <div className="bench-more">
          <Segmented
            aria-label="Cooled by"
            value={notes.loop ?? ''}
            onChange={(v) => change({ loop: v === '' ? null : (v as NonNullable<Notes['loop']>) })}
            options={[
              { value: 'none', label: 'air' },
              { value: 'closed', label: 'liquid, loop stays closed' },
              { value: 'opened', label: 'liquid, loop is opened' },
              { value: '', label: 'not known' },
            ]}
          />
          <Segmented
            aria-label="Fans at idle"
            value={notes.fansStopAtIdle === true ? 'stop' : notes.fansStopAtIdle === false ? 'turn' : ''}
            onChange={(v) => change({ fansStopAtIdle: v === '' ? null : v === 'stop' })}
            options={[
              { value: 'turn', label: 'fans turn at idle' },
              { value: 'stop', label: 'fans stop at idle' },
              { value: '', label: 'not known' },
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
            <Segmented
              aria-label="Changed"
              value={f.hotSwap ? 'running' : 'off'}
              onChange={(v) => change({ fans: at(notes.fans, i, { ...f, hotSwap: v === 'running' }) })}
              options={[
                { value: 'off', label: 'changed powered off' },
                { value: 'running', label: 'hot-swap' },
              ]}
            />
            <Input
              aria-label="Part number"
              placeholder="part number"
              value={f.partNumber ?? ''}
              maxLength={80}
              style={{ width: 140 }}
              onChange={(e) =>
                change({ fans: at(notes.fans, i, { ...f, partNumber: e.target.value || null }) })
              }
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
      <Sentences
        title="Tools of its own"
        lines={notes.tools ?? []}
        onChange={(tools) => change({ tools: tools.length > 0 ? tools : null })}
      />
      <Sentences title="Traps" lines={notes.traps} onChange={(traps) => change({ traps })} />
    </>
  );
}

function at<T>(list: readonly T[], index: number, value: T): T[] {
  return list.map((v, i) => (i === index ? value : v));
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
