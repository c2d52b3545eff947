import { t } from '@lingui/core/macro';
import { Button, Input } from 'antd';
import { useState, type KeyboardEvent } from 'react';
import type { Schemas } from '../../../api/client';
import { useGrades } from '../../../api/queries';
import type { BenchJob } from '../useBenchJob';
import { SUBJECTS } from '../../../words/work';
import { GradeDrawing } from './GradeDrawing';
import { say } from '../../../words/message';
import { Unready } from '../../../ui/Unready';

type Subject = Schemas['FindingSubject'];

/** What each form of inspection looks at. */
export const LOOKED_AT: Partial<Record<Schemas['StepForm'], readonly Subject[]>> = {
  inspection: ['dust', 'mesh', 'fan-spin', 'fan-noise', 'liquid'],
  'joint-inspection': ['paste', 'coverage', 'pads'],
  'seal-inspection': ['seal'],
  'corrosion-inspection': ['corrosion'],
};

export const isInspection = (form: Schemas['StepForm']): boolean => form in LOOKED_AT;

/** What is seen, each thing given its grade; and what was broken or done differently before. */
export function Inspection({
  job,
  write,
  form,
  onGiven,
}: BenchJob & {
  form: Schemas['StepForm'];
  /** Told where one grade is all that is asked for. */
  onGiven?: () => void;
}) {
  const grades = useGrades();
  if (!grades.data) return <Unready of={[grades]} as="part" />;
  return (
    <div className="inspection">
      {(LOOKED_AT[form] ?? []).map((about) => {
        const given = job.findings.find((f) => f.about === about)?.grade;
        return (
          <fieldset key={about}>
            <legend>{SUBJECTS[about]}</legend>
            <div className="grades" role="toolbar" aria-label={SUBJECTS[about]} onKeyDown={walkGrades}>
              {(grades.data[about] ?? []).map((g, i) => (
                <button
                  key={g.word}
                  type="button"
                  aria-pressed={given === g.word}
                  // One stop for Tab; the arrows go from grade to grade.
                  tabIndex={given === g.word || (given === undefined && i === 0) ? 0 : -1}
                  onClick={() =>
                    void write({ kind: 'found', about, grade: g.word, note: null }).then(onGiven)
                  }
                >
                  <GradeDrawing about={about} grade={g.word} />
                  <span>{say(g.message)}</span>
                </button>
              ))}
            </div>
          </fieldset>
        );
      })}
      <Said
        label={t`Damage or a missing part that was already like this`}
        placeholder={t`one clip of the shroud broken`}
        said={job.damage}
        onSay={(text) => write({ kind: 'damage-found', text })}
      />
      <Said
        label={t`Damage done by this job`}
        placeholder={t`one clip of the bottom cover snapped`}
        said={job.damageDone}
        onSay={(text) => write({ kind: 'damage-found', text, onTheWay: true })}
      />
      <Said
        label={t`Deviation from good practice`}
        placeholder={t`paste instead of pads; pads of another thickness`}
        said={job.deviations}
        onSay={(text) => write({ kind: 'deviation-seen', text })}
      />
    </div>
  );
}

function walkGrades(e: KeyboardEvent<HTMLDivElement>) {
  const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[e.key];
  if (step === undefined) return;
  const all = [...e.currentTarget.querySelectorAll('button')];
  const at = all.findIndex((b) => b === document.activeElement);
  all[(at + step + all.length) % all.length]?.focus();
  e.preventDefault();
}

export function Said({
  label,
  placeholder,
  said,
  onSay,
}: {
  label: string;
  placeholder: string;
  said: readonly string[];
  onSay: (text: string) => Promise<void>;
}) {
  const [text, setText] = useState('');
  return (
    <div>
      <div style={{ display: 'flex', gap: 8, alignItems: 'flex-end' }}>
        <label style={{ flex: 1 }}>
          {label}
          <Input
            value={text}
            maxLength={500}
            placeholder={placeholder}
            onChange={(e) => setText(e.target.value)}
          />
        </label>
        <Button disabled={text.trim() === ''} onClick={() => void onSay(text.trim()).then(() => setText(''))}>
          {t`Note`}
        </Button>
      </div>
      {said.length > 0 && (
        <ul className="bullets">
          {said.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ul>
      )}
    </div>
  );
}
