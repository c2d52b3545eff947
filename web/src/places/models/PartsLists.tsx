import { t } from '@lingui/core/macro';
import { Button, Input, Segmented, Select } from 'antd';
import type { Schemas } from '../../api/client';
import { Num } from './Num';
import { word } from '../../words/word';

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
        <h2>{t`Chip and paste`}</h2>
        <div className="bench-more">
          <Segmented
            aria-label={t`Chip`}
            value={notes.chip ?? ''}
            onChange={(v) => change({ chip: v === '' ? null : (v as Notes['chip']) })}
            options={[
              { value: 'bare', label: t`bare chip` },
              { value: 'lidded', label: t`lidded` },
              { value: '', label: t`not known` },
            ]}
          />
          <Segmented
            aria-label={t`Paste`}
            value={notes.pattern ?? ''}
            onChange={(v) => change({ pattern: v === '' ? null : (v as Notes['pattern']) })}
            options={[
              { value: 'spread', label: t`spread` },
              { value: 'line', label: t`line` },
              { value: 'dot', label: t`dot` },
              { value: 'cross', label: t`cross` },
              { value: '', label: t`as usual` },
            ]}
          />
        </div>
      </section>
      <section className="section">
        <h2>{t`Cooling`}</h2>
        <div className="bench-more">
          <Segmented
            aria-label={t`Cooled by`}
            value={notes.loop ?? ''}
            onChange={(v) => change({ loop: v === '' ? null : (v as NonNullable<Notes['loop']>) })}
            options={[
              { value: 'none', label: t`air` },
              { value: 'closed', label: t`liquid, loop stays closed` },
              { value: 'opened', label: t`liquid, loop is opened` },
              { value: '', label: t`not known` },
            ]}
          />
          <Segmented
            aria-label={t`Fans at idle`}
            value={notes.fansStopAtIdle === true ? 'stop' : notes.fansStopAtIdle === false ? 'turn' : ''}
            onChange={(v) => change({ fansStopAtIdle: v === '' ? null : v === 'stop' })}
            options={[
              { value: 'turn', label: t`fans turn at idle` },
              { value: 'stop', label: t`fans stop at idle` },
              { value: '', label: t`not known` },
            ]}
          />
        </div>
      </section>
      <section className="section">
        <h2>{t`Connectors`}</h2>
        {notes.connectors.map((c, i) => (
          <div key={i} className="notes-row">
            <Input
              aria-label={t`Name`}
              value={c.name}
              maxLength={60}
              style={{ width: 200 }}
              onChange={(e) =>
                change({ connectors: at(notes.connectors, i, { ...c, name: e.target.value }) })
              }
            />
            <Select
              aria-label={t`Kind`}
              value={c.kind}
              options={KINDS.map((k) => ({ value: k, label: word(k) }))}
              style={{ width: 120 }}
              onChange={(kind) => change({ connectors: at(notes.connectors, i, { ...c, kind }) })}
            />
            <Num
              label={t`how many`}
              value={c.count}
              onChange={(n) =>
                change({ connectors: at(notes.connectors, i, { ...c, count: Math.max(1, Math.round(n)) }) })
              }
            />
            <Button onClick={() => change({ connectors: notes.connectors.filter((_, n) => n !== i) })}>
              {t`Take it out`}
            </Button>
          </div>
        ))}
        <Button
          onClick={() =>
            change({ connectors: [...notes.connectors, { name: t`Fan lead`, kind: 'fan-lead', count: 1 }] })
          }
        >
          {t`Add a connector`}
        </Button>
      </section>
      <section className="section">
        <h2>{t`Fans`}</h2>
        {notes.fans.map((f, i) => (
          <div key={i} className="notes-row">
            <Input
              aria-label={t`Name`}
              value={f.name}
              maxLength={60}
              style={{ width: 200 }}
              onChange={(e) => change({ fans: at(notes.fans, i, { ...f, name: e.target.value }) })}
            />
            <Segmented
              aria-label={t`How it comes off`}
              value={f.comesOffAlone ? 'alone' : 'cooler'}
              onChange={(v) => change({ fans: at(notes.fans, i, { ...f, comesOffAlone: v === 'alone' }) })}
              options={[
                { value: 'alone', label: t`comes off alone` },
                { value: 'cooler', label: t`only with the cooler` },
              ]}
            />
            <Segmented
              aria-label={t`Changed`}
              value={f.hotSwap ? 'running' : 'off'}
              onChange={(v) => change({ fans: at(notes.fans, i, { ...f, hotSwap: v === 'running' }) })}
              options={[
                { value: 'off', label: t`changed powered off` },
                { value: 'running', label: t`hot-swap` },
              ]}
            />
            <Input
              aria-label={t`Part number`}
              placeholder={t`part number`}
              value={f.partNumber ?? ''}
              maxLength={80}
              style={{ width: 140 }}
              onChange={(e) =>
                change({ fans: at(notes.fans, i, { ...f, partNumber: e.target.value || null }) })
              }
            />
            <Button onClick={() => change({ fans: notes.fans.filter((_, n) => n !== i) })}>
              {t`Take it out`}
            </Button>
          </div>
        ))}
        <Button onClick={() => change({ fans: [...notes.fans, { name: 'left', comesOffAlone: true }] })}>
          {t`Add a fan`}
        </Button>
      </section>
      <Sentences title={t`Clips`} lines={notes.clips} onChange={(clips) => change({ clips })} />
      <Sentences
        title={t`Tools of its own`}
        lines={notes.tools ?? []}
        onChange={(tools) => change({ tools: tools.length > 0 ? tools : null })}
      />
      <Sentences title={t`Traps`} lines={notes.traps} onChange={(traps) => change({ traps })} />
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
        placeholder={t`one a line`}
        onChange={(e) => onChange(e.target.value === '' ? [] : e.target.value.split('\n'))}
        onBlur={() => onChange(lines.map((l) => l.trim()).filter((l) => l !== ''))}
      />
    </section>
  );
}
