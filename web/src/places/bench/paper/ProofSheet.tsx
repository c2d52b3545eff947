import { t } from '@lingui/core/macro';
import { useParams } from 'react-router';
import { capital, fullDay, kelvin, partName, useTemperature } from '../../../words/format';
import { usePageTitle } from '../../../ui/usePageTitle';
import { Picture } from '../job/Photos';
import { useBenchJob } from '../useBenchJob';
import { VerdictView } from '../VerdictView';
import { orderWords } from '../job/Order';
import { productWords } from '../job/Used';
import { COMPLAINTS, levelName, MATERIALS, PHASES, SUBJECTS } from '../../../words/work';
import { useGrades } from '../../../api/queries';
import { SheetHead } from '../../../ui/paper/SheetHead';
import '../../../ui/paper/paper.css';
import '../../../ui/work.css';
import { say } from '../../../words/message';
import type { Schemas } from '../../../api/client';
import { fanWords } from '../../../words/measured';
import { Unready } from '../../../ui/Unready';

/** One page for the owner: conditions, figures, photos, materials, deviations, and the margin that is left. */
export function ProofSheet() {
  const id = Number(useParams()['id']);
  const { query, job } = useBenchJob(id);
  const grades = useGrades();
  const { exact } = useTemperature();
  usePageTitle(job ? t`Proof ${job.asset}` : t`Proof`);
  if (!job) return <Unready of={[query]} missing={t`job ${String(id)}`} />;
  const runs = job.runs.filter((r) => r.voided === null);
  const last = runs.filter((r) => r.phase !== 'before').at(-1)?.run;
  const verdict = job.verdict ?? job.preview;
  const tells = job.schools.tellsDamage !== false;
  const damage = tells && (job.damageDone.length > 0 || job.photos.some((p) => p.doneOnTheWay));
  const photos = job.photos.filter((p) => tells || !p.doneOnTheWay);
  return (
    <div className="sheet">
      <SheetHead
        place={`/bench/${String(id)}`}
        back={t`Back to the job`}
        code={t`QR code of job ${String(id)}`}
        title={`${job.asset}: ${levelName(job.level)}${job.workDoneAt ? t` on ${fullDay(job.workDoneAt.slice(0, 10))}` : ''}`}
      >
        <p>
          {t`${job.model}. Job ${job.id}.`}
          {job.handedBack && t` Handed back to ${job.handedBack.to}.`}
          {job.complaint &&
            t` Complaint: ${job.complaint.what === 'other' ? (job.complaint.inWords ?? '') : t`it ${COMPLAINTS[job.complaint.what]}`}${job.complaint.load ? t` under ${job.complaint.load}` : ''}${job.complaintFixed === null ? '' : job.complaintFixed ? t`, gone` : t`, not gone`}.`}
        </p>
      </SheetHead>
      {verdict ? (
        <VerdictView verdict={verdict} />
      ) : (
        <p>{t`Nothing can be proven: ${job.beforeExcuse ?? t`a run is missing`}.`}</p>
      )}
      <h2>{t`Conditions and figures`}</h2>
      <table className="sheet-table">
        <thead>
          <tr>
            <th />
            {runs.map((r) => (
              <th key={r.key}>
                {PHASES[r.phase]}, {fullDay(r.measuredAt.slice(0, 10))}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>{t`Load, time`}</td>
            {runs.map((r) => (
              <td key={r.key}>{t`${r.run.workload}, ${r.run.minutes} min`}</td>
            ))}
          </tr>
          <tr>
            <td>{t`Air, settings, position`}</td>
            {runs.map((r) => (
              <td key={r.key}>
                {r.run.ambientCelsius === null ? t`not known` : exact(r.run.ambientCelsius)}, {r.run.settings}
                {r.run.position && `, ${r.run.position}`}
              </td>
            ))}
          </tr>
          <tr>
            <td>{t`Fan`}</td>
            {runs.map((r) => (
              <td key={r.key}>
                {fanWords(r.run.fan.mode)}
                {r.run.fan.percent ? ` ${String(r.run.fan.percent)} %` : ''}
                {r.run.fan.rpm ? t` ${String(r.run.fan.rpm)} rpm` : ''}
              </td>
            ))}
          </tr>
          {job.parts.map((p) => (
            <tr key={p.part}>
              <td>{capital(partName(p.part))}</td>
              {runs.map((r) => {
                const found = r.run.parts.find((x) => x.part === p.part);
                return <td key={r.key}>{found === undefined ? '–' : exact(found.celsius)}</td>;
              })}
            </tr>
          ))}
        </tbody>
      </table>
      {last && (
        <>
          <h2>{t`Margin left`}</h2>
          <p>
            {job.parts
              .map((p) => {
                const now = last.parts.find((x) => x.part === p.part)?.celsius;
                return typeof now === 'number' && typeof p.limitCelsius === 'number'
                  ? t`${capital(partName(p.part))}: ${kelvin(p.limitCelsius - now)} below its limit of ${exact(p.limitCelsius)}`
                  : null;
              })
              .filter((s) => s !== null)
              .join('; ')}
            .
          </p>
        </>
      )}
      {job.order && (
        <>
          <h2>{t`Agreed`}</h2>
          <p>
            {orderWords(job.order)}
            {job.handedBack?.condition && t` As it went back: ${job.handedBack.condition}.`}
          </p>
        </>
      )}
      {damage && (
        <>
          <h2>{t`Damage done by this job`}</h2>
          <ul className="bullets">
            {job.damageDone.map((d) => (
              <li key={d}>{d}</li>
            ))}
            {job.photos
              .filter((p) => p.doneOnTheWay)
              .map((p) => (
                <li key={p.key}>{p.caption ?? t`see the photo`}</li>
              ))}
          </ul>
        </>
      )}
      {(job.findings.length > 0 || job.damage.length > 0 || job.deviations.length > 0) && (
        <>
          <h2>{t`Found`}</h2>
          <ul className="bullets">
            {job.findings.map((f) => (
              <li key={f.about}>
                {SUBJECTS[f.about]}: {gradeWords(grades.data?.[f.about], f.grade)}
                {f.note && ` (${f.note})`}
              </li>
            ))}
            {job.damage.map((d) => (
              <li key={d}>{t`Found damaged on opening: ${d}`}</li>
            ))}
            {job.deviations.map((d) => (
              <li key={d}>{t`Deviation from good practice: ${d}`}</li>
            ))}
          </ul>
        </>
      )}
      <h2>{t`Used`}</h2>
      <p>
        {job.materials
          .map(
            (m) =>
              `${MATERIALS[m.material].name} ${String(m.amount)} ${MATERIALS[m.material].unit}${m.thicknessMm ? t` of ${m.thicknessMm.toFixed(1)} mm` : ''}`,
          )
          .join('; ') || t`No materials booked`}
        . {job.products.length > 0 && `${job.products.map(productWords).join('; ')}. `}
        {job.padsMeasured.length > 0 &&
          t`Old pads: ${job.padsMeasured
            .map(
              (p) =>
                t`${p.place} measured ${String(p.measuredMm)} mm${p.nominalMm ? t`, nominal ${String(p.nominalMm)} mm` : ''}`,
            )
            .join('; ')}. `}
        {job.minutes > 0 && t`${String(job.minutes)} minutes at the bench.`}
      </p>
      {job.note && <p>{job.note}</p>}
      {job.photos.length > 0 && (
        <div className="photos">
          {photos.slice(0, 6).map((p) => (
            <figure key={p.key}>
              <Picture photo={p.key} alt={p.caption ?? t`photo`} large />
              <figcaption>{p.caption}</figcaption>
            </figure>
          ))}
        </div>
      )}
    </div>
  );
}

/** What was seen, in words; the grade's own word while they are on their way. */
function gradeWords(grades: readonly Schemas['GradeAnswer'][] | undefined, grade: string): string {
  const known = grades?.find((g) => g.word === grade);
  return known ? say(known.message) : grade;
}
