import { Button, Dropdown, Segmented, Skeleton } from 'antd';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { ProblemError, type Schemas, type ServiceLevel } from '../api/client';
import { useAssessment, useMachine } from '../api/queries';
import { LEVELS } from '../bench/words';
import {
  capital,
  day,
  fullDay,
  kelvin,
  minutes,
  partName,
  useTemperature,
  withUncertainty,
} from '../lib/format';
import { CAUSE_WORDS, CauseMark } from '../marks/CauseMark';
import { HeatPath } from '../marks/HeatPath';
import { SetAside } from '../rounds/SetAside';
import { useStartJob } from '../rounds/useStartJob';
import { NotFound } from '../shell/NotFound';
import { Refusal } from '../shell/Refusal';
import { usePageTitle } from '../shell/usePageTitle';
import { Book } from './Book';
import { DriftChart } from './DriftChart';
import { EditMachine } from './EditMachine';
import './machine.css';
import { LevelsTable } from './LevelsTable';
import { FigureBreakdown } from './FigureBreakdown';
import { measuredWords } from './measured';
import { Readings } from './Readings';
import { ReportSymptom } from './Reports';
import { ResidualChart } from './ResidualChart';
import { Retire } from './Retire';

/** One machine: how its heat flows, how that has changed, what was done to it. */
export function Machine() {
  const tag = useParams()['tag'] ?? '';
  usePageTitle(tag);
  const machine = useMachine(tag);
  const assessment = useAssessment(machine.data && !machine.data.retiredOn ? tag : null);
  const [open, setOpen] = useState<'edit' | 'retire' | 'aside' | 'report' | null>(null);
  const startJob = useStartJob();

  if (machine.isPending)
    return (
      <div className="page" aria-busy="true">
        <h1 className="figures">{tag}</h1>
        <Skeleton active />
      </div>
    );
  if (machine.isError)
    return machine.error instanceof ProblemError && machine.error.problem.status === 404 ? (
      <NotFound what={`machine ${tag}`} />
    ) : (
      <div className="page">
        <h1 className="figures">{tag}</h1>
        <Refusal error={machine.error} retry={() => void machine.refetch()} />
      </div>
    );

  const m = machine.data;
  const a = assessment.data;
  const job = m.jobs.find((j) => j.state === 'open') ?? m.jobs.find((j) => j.state === 'waiting-for-proof');
  return (
    <div className="page">
      <div className="page-head">
        <div>
          <h1>
            <span className="figures">{m.tag}</span>{' '}
            <span style={{ fontWeight: 400 }} className="quiet">
              {m.model}
            </span>
          </h1>
          <p className="quiet">
            {m.zoneName} · {m.dutyHoursPerDay} h a day · in service since {fullDay(m.inServiceSince)}
            {m.warrantyUntil && ` · warranty until ${fullDay(m.warrantyUntil)}`}
            {m.hostTag && (
              <>
                {' '}
                · in <Link to={`/machines/${encodeURIComponent(m.hostTag)}`}>{m.hostTag}</Link>
              </>
            )}
          </p>
        </div>
        <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap' }}>
          {!m.retiredOn &&
            (job ? (
              <Link to={`/bench/${String(job.id)}`}>
                <Button type="primary">{job.state === 'open' ? 'To the job in hand' : 'To its proof'}</Button>
              </Link>
            ) : (
              <>
                {a?.service && (
                  <Button
                    type="primary"
                    loading={startJob.isPending}
                    onClick={() => startJob.mutate({ asset: m.tag, level: a.service! })}
                  >
                    Start {a.service}
                  </Button>
                )}
                <Dropdown
                  trigger={['click']}
                  menu={{
                    items: LEVELS.filter((l) => l !== a?.service).map((l) => ({ key: l, label: l })),
                    onClick: ({ key }) => startJob.mutate({ asset: m.tag, level: key as ServiceLevel }),
                  }}
                >
                  <Button>{a?.service ? 'Another level' : 'Start a job'} ▾</Button>
                </Dropdown>
              </>
            ))}
          {!m.retiredOn && <Button onClick={() => setOpen('report')}>Report a symptom</Button>}
          <Button onClick={() => setOpen('edit')}>Edit</Button>
          {!m.retiredOn && <Button onClick={() => setOpen('aside')}>Set aside</Button>}
          <Button onClick={() => setOpen('retire')}>{m.retiredOn ? 'Put back into use' : 'Retire'}</Button>
        </div>
      </div>

      {m.retiredOn ? (
        <p style={{ marginTop: 16 }}>
          Retired on {fullDay(m.retiredOn)}: {m.retiredReason}. It is not judged any more; its history stays.
        </p>
      ) : assessment.isError ? (
        <Refusal error={assessment.error} retry={() => void assessment.refetch()} />
      ) : a ? (
        <Judgement a={a} services={m.services} />
      ) : (
        <Skeleton active />
      )}

      <Book machine={m} steps={a?.steps ?? []} />
      <Readings tag={m.tag} parts={m.parts.map((p) => p.part ?? '')} />

      {open === 'report' && <ReportSymptom tag={m.tag} onClose={() => setOpen(null)} />}
      {open === 'edit' && <EditMachine machine={m} onClose={() => setOpen(null)} />}
      {open === 'retire' && <Retire machine={m} onClose={() => setOpen(null)} />}
      {open === 'aside' && <SetAside item={{ asset: m.tag }} onClose={() => setOpen(null)} />}
    </div>
  );
}

const URGENCY_WORDS: Record<Schemas['Urgency'], string> = {
  now: 'Now',
  next: 'Next',
  soon: 'Soon',
  watch: 'Watch it',
  fine: 'Fine',
  unknown: 'Too little to say',
};

function Judgement({
  a,
  services,
}: {
  a: Schemas['AssessmentAnswer'];
  services: readonly Schemas['ServiceEntry'][];
}) {
  const { full } = useTemperature();
  const worst = a.parts.reduce<Schemas['PartAnswer'] | undefined>(
    (most, p) => (most && most.driftKelvin >= p.driftKelvin ? most : p),
    undefined,
  );
  const [picked, setPicked] = useState<string | null>(null);
  const part = a.parts.find((p) => p.part === picked) ?? worst;
  return (
    <>
      <section className="section" aria-label="Judgement">
        <p style={{ display: 'flex', gap: 10, fontSize: 17, alignItems: 'flex-start', margin: '0 0 4px' }}>
          <CauseMark cause={a.cause} size={24} />
          <span>
            <strong>
              {URGENCY_WORDS[a.urgency]}
              {a.cause !== 'none' && ` · ${CAUSE_WORDS[a.cause]}`}.
            </strong>{' '}
            {a.reason}
          </span>
        </p>
        <p className="quiet">
          As of {fullDay(a.asOf)}
          {a.pending && ' (newer data is being judged)'} from {a.readings.toLocaleString()} readings
          {a.runs > 0 && ` and ${a.runs === 1 ? 'one run' : `${String(a.runs)} runs`} at the bench`}
          {a.measuredAt && `, measured last ${measuredWords(a) ?? ''}`}
          {a.evidence && ` · evidence ${a.evidence}`}
          {a.service && a.minutes !== null && ` · ${a.service}, ${minutes(a.minutes)}`}
          {a.actionDate &&
            ` · action line ${a.actionDate === a.asOf ? 'passed' : `around ${day(a.actionDate)}`}`}
          {a.due && a.dueLevel && ` · ${a.dueLevel} due ${day(a.due)}`}
        </p>
      </section>
      {part && (
        <div className="machine-grid">
          <section aria-label="Drift">
            <div className="section-head">
              <h2>Drift of the {partName(part.part)}</h2>
              {a.parts.length > 1 && (
                <Segmented
                  size="small"
                  aria-label="Part"
                  value={part.part}
                  onChange={setPicked}
                  options={a.parts.map((p) => ({ label: partName(p.part), value: p.part }))}
                />
              )}
            </div>
            <DriftChart part={part} services={services} asOf={a.asOf} />
            <ResidualChart part={part} services={services} steps={a.steps} asOf={a.asOf} />
            <div className="scroll-x">
              <table className="plain-table" style={{ marginTop: 10 }}>
                <thead>
                  <tr>
                    <th>Part</th>
                    <th className="num">{a.measuredAt ? day(a.measuredAt.slice(0, 10)) : 'now'}</th>
                    <th className="num">limit</th>
                    <th className="num">hot day, full fan</th>
                    <th className="num">to the action line</th>
                    <th className="num">to win</th>
                    <th>of it</th>
                    <th>joint</th>
                  </tr>
                </thead>
                <tbody>
                  {a.parts.map((p) => (
                    <tr key={p.part}>
                      <td>{capital(partName(p.part))}</td>
                      <td className="num">{p.latestCelsius === null ? '–' : full(p.latestCelsius)}</td>
                      <td className="num">{full(p.limitCelsius)}</td>
                      <td className="num">
                        <FigureBreakdown
                          title={`${capital(partName(p.part))} on a hot day`}
                          lines={[
                            [
                              'intake air the zone is planned for',
                              full(p.hottestCelsius - p.hottestRiseKelvin),
                            ],
                            ['rise at usual heat, fan at full speed', kelvin(p.hottestRiseKelvin)],
                            ['together', full(p.hottestCelsius)],
                          ]}
                        >
                          {full(p.hottestCelsius)}
                        </FigureBreakdown>
                      </td>
                      <td className="num">
                        <FigureBreakdown
                          title="To the action line"
                          lines={[
                            ['limit of the part', full(p.limitCelsius)],
                            ['less the house’s margin', kelvin(p.limitCelsius - p.actionLineCelsius)],
                            ['less the hot day', full(p.hottestCelsius)],
                            ['left', kelvin(p.marginKelvin)],
                          ]}
                        >
                          {kelvin(p.marginKelvin)}
                        </FigureBreakdown>
                      </td>
                      <td className="num">
                        <FigureBreakdown
                          title={`What service could win on the ${partName(p.part)}`}
                          lines={[
                            ['rise with everything fresh', kelvin(p.baselineRiseKelvin)],
                            ...p.split.map(
                              (s) =>
                                [
                                  CAUSE_WORDS[s.cause],
                                  withUncertainty(s.kelvin, s.uncertaintyKelvin),
                                ] as const,
                            ),
                            ['rise now by these', kelvin(p.presentRiseKelvin)],
                            ...(p.hiddenKelvin >= 0.05
                              ? [['kept from showing by its fan', kelvin(-p.hiddenKelvin)] as const]
                              : []),
                            ['unexplained', kelvin(p.unexplainedKelvin)],
                            [
                              'rise now as measured, room taken out',
                              kelvin(p.presentRiseKelvin - p.hiddenKelvin + p.unexplainedKelvin),
                            ],
                            [
                              'to win, ± two standard uncertainties',
                              `${kelvin(p.driftKelvin)} ± ${kelvin(p.uncertaintyKelvin)}`,
                            ],
                          ]}
                        >
                          {kelvin(p.driftKelvin)} ± {kelvin(p.uncertaintyKelvin)}
                        </FigureBreakdown>
                      </td>
                      <td style={{ minWidth: 170 }}>
                        {p.split
                          .filter((s) => Math.abs(s.kelvin) >= 0.3)
                          .map((s) => `${s.cause} ${withUncertainty(s.kelvin, s.uncertaintyKelvin)}`)
                          .concat(
                            Math.abs(p.unexplainedKelvin) >= 1
                              ? [`unexplained ${kelvin(p.unexplainedKelvin)}`]
                              : [],
                          )
                          .join(', ') || '–'}
                      </td>
                      <td>{p.interface}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </section>
          <section aria-label="Heat path">
            <div className="section-head">
              <h2>Heat path</h2>
            </div>
            <HeatPath part={part} measured={measuredWords(a)} />
            <LevelsTable levels={a.levels} currency={a.currency} years={a.payBackYears} advised={a.service} />
          </section>
        </div>
      )}
      <section className="section" aria-label="How this was reckoned">
        <div className="section-head">
          <h2>How this was reckoned</h2>
        </div>
        <ul style={{ margin: 0, paddingLeft: 18, maxWidth: 820 }}>
          {a.sentences.map((s) => (
            <li key={s}>{s}</li>
          ))}
          {a.toBeSurer && (
            <li>
              <strong>To be surer:</strong> {a.toBeSurer}
            </li>
          )}
        </ul>
      </section>
    </>
  );
}
