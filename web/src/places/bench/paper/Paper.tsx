import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { Link, useParams } from 'react-router';
import { fullDay, partName, capital } from '../../../words/format';
import { ModelPlan } from '../../../ui/ModelPlan';
import { usePageTitle } from '../../../ui/usePageTitle';
import { useBenchJob } from '../useBenchJob';
import { levelName, STAGES, SUBJECTS } from '../../../words/work';
import { useGrades } from '../../../api/queries';
import type { Schemas } from '../../../api/client';
import '../../../ui/work.css';
import '../../../ui/paper/paper.css';
import { LOOKED_AT } from '../job/Inspection';
import { SheetHead } from '../../../ui/paper/SheetHead';
import { gateWords, say } from '../../../words/message';
import { word } from '../../../words/word';
import { fanWords } from '../../../words/measured';
import { Unready } from '../../../ui/Unready';

/** The work card on A4: tick boxes, tray map, figures to fill in, and the way back into the program. */
export function Paper() {
  const id = Number(useParams()['id']);
  const { query, job } = useBenchJob(id);
  const grades = useGrades();
  usePageTitle(job ? t`Work card ${job.asset}` : t`Work card`);
  if (!job || !grades.data) return <Unready of={[query, grades]} missing={t`job ${String(id)}`} />;
  const stages = [...new Set(job.steps.map((s) => s.stage))];
  const before = job.runs.find((r) => r.phase === 'before' && r.voided === null)?.run ?? null;
  return (
    <div className="sheet">
      <SheetHead
        place={`/bench/${String(id)}`}
        back={t`Back to the job`}
        code={t`QR code of job ${String(id)}`}
        title={`${job.asset} · ${levelName(job.level)}`}
        more={
          <Link to={`/bench/${String(id)}/typed`}>
            <Button>{t`Type in what was written`}</Button>
          </Link>
        }
      >
        <p>
          {t`${job.model}. Job ${job.id}, begun ${fullDay(job.startedAt.slice(0, 10))}.`}
          {job.warrantyUntil &&
            t` Under warranty until ${fullDay(job.warrantyUntil)}${job.warrantyAnswer ? `: “${job.warrantyAnswer}”` : ''}.`}
          {job.predicted && job.predicted.cause !== 'none' && t` Expected: ${word(job.predicted.cause)}.`}
        </p>
        <p className="small">
          {t`Local codes, the maker’s instructions and licensed practice come first. Stop and ask when in doubt.`}
        </p>
      </SheetHead>
      <Figures title={t`Before`} parts={job.parts} run={before} />
      {stages.map((stage) => (
        <section key={stage} className="sheet-stage">
          <h2>{STAGES[stage]}</h2>
          {job.steps
            .filter((s) => s.stage === stage)
            .map((s) => (
              <div key={s.id} className="sheet-step">
                <span className="sheet-box">{s.doneAt ? '✓' : s.skipped ? '–' : ''}</span>
                <div>
                  {say(s.message)}
                  {s.gate.length > 0 && (
                    <div className="sheet-gate">
                      {s.gate.map((g, i) => (
                        <span key={g}>
                          <span className="sheet-box small-box">{s.checks.includes(g) ? '✓' : ''}</span>{' '}
                          {gateWords(s, i)}
                        </span>
                      ))}
                    </div>
                  )}
                  {s.cautions.length > 0 && (
                    <p className="sheet-caution">
                      {s.cautions
                        .map((c) => `! ${say(c.message)}${c.source ? ` (${c.source})` : ''}`)
                        .join(' ')}
                    </p>
                  )}
                  <Grades form={s.form} grades={grades.data} />
                  {s.form === 'chip' && (
                    <div className="sheet-grades">
                      <span>
                        <span className="sheet-box small-box" /> {t`metal lid`}{' '}
                      </span>
                      <span>
                        <span className="sheet-box small-box" /> {t`bare chip`}
                      </span>
                    </div>
                  )}
                </div>
              </div>
            ))}
        </section>
      ))}
      <section className="sheet-stage">
        <h2>{t`Tray`}</h2>
        <ModelPlan notes={job.notes} show="both" order={[]} />
        <table className="sheet-table">
          <thead>
            <tr>
              <th>{t`Screws, connectors`}</th>
              <th>{t`on the plan`}</th>
              <th>{t`out`}</th>
              <th>{t`in`}</th>
            </tr>
          </thead>
          <tbody>
            {job.expected.map((c) => (
              <tr key={c.item}>
                <td>{c.item}</td>
                <td>{c.out}</td>
                <td />
                <td />
              </tr>
            ))}
            {[1, 2, 3].map((n) => (
              <tr key={n}>
                <td>&nbsp;</td>
                <td />
                <td />
                <td />
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <Figures
        title={t`After: the same load, time, fan, settings and position`}
        parts={job.parts}
        run={null}
        like={before}
      />
      <section className="sheet-stage">
        <h2>{t`Used`}</h2>
        <p>
          {t`Paste ______ g · pads ______ × ______ mm · wipes ______ · alcohol ______ ml · minutes ______ · by ____________________`}
        </p>
        <p>
          {t`Note ______________________________________________________________________________________`}
        </p>
      </section>
    </div>
  );
}

function Grades({
  form,
  grades,
}: {
  form: Schemas['StepForm'];
  grades: Record<string, Schemas['GradeAnswer'][]>;
}) {
  const subjects = LOOKED_AT[form];
  if (!subjects) return null;
  return (
    <div className="sheet-grades">
      {subjects.map((s) => (
        <div key={s}>
          <strong>{SUBJECTS[s]}</strong>:{' '}
          {(grades[s] ?? []).map((g) => (
            <span key={g.word}>
              <span className="sheet-box small-box" /> {say(g.message)}{' '}
            </span>
          ))}
        </div>
      ))}
    </div>
  );
}

function Figures({
  title,
  parts,
  run,
  like,
}: {
  title: string;
  parts: readonly Schemas['MachinePart'][];
  run: Schemas['RunAnswer'] | null;
  like?: Schemas['RunAnswer'] | null;
}) {
  const c = run ?? like;
  const blank = '________';
  return (
    <section className="sheet-stage">
      <h2>{title}</h2>
      <p>
        {t`Load ${c?.workload ?? blank} · ${c?.minutes ?? blank} min · fan ${c?.fan.mode ? fanWords(c.fan.mode) : blank}`}{' '}
        {c?.fan.percent ? `${String(c.fan.percent)} %` : ''}{' '}
        {t`· ${c?.settings ?? t`settings ${blank}`} · stands ${c?.position ?? blank} · air ${run?.ambientCelsius ?? blank} °C · fan ${run?.fan.rpm ?? blank} rpm · power ${run?.powerWatts ?? blank} W`}
      </p>
      <p>
        {parts.map((p) => (
          <span key={p.part} className="sheet-figure">
            {t`${capital(partName(p.part))} settled ${run?.parts.find((r) => r.part === p.part)?.celsius ?? blank} °C, max ${run?.parts.find((r) => r.part === p.part)?.maximumCelsius ?? blank} °C`}
          </span>
        ))}
      </p>
    </section>
  );
}
