import { plural, t } from '@lingui/core/macro';
import { Segmented } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { day, fullDay, partName } from '../../words/format';
import { say, sayAll } from '../../words/message';
import { causeShown, levelName, workOf } from '../../words/work';
import { CAUSE_WORDS, CauseMark } from '../../ui/marks/CauseMark';
import { HeatPath } from '../../ui/marks/HeatPath';
import type { Span } from '../../ui/chart/span';
import { DriftChart } from './DriftChart';
import { WaitingTable } from '../../ui/WaitingTable';
import { LevelsTable } from './LevelsTable';
import { measuredWords } from '../../words/measured';
import { PartsTable } from './PartsTable';
import { ResidualChart } from './ResidualChart';
import { WhyNot } from './WhyNot';

const URGENCY_WORDS: Record<Schemas['Urgency'], string> = {
  now: t`Now`,
  next: t`Next`,
  soon: t`Soon`,
  watch: t`Watch`,
  fine: t`Fine`,
  unknown: t`Too little measured`,
};

/** What is judged of a machine: urgency, cause, drift, heat path, levels and the sentences behind them. */
export function Judgement({
  a,
  services,
}: {
  a: Schemas['AssessmentAnswer'];
  services: readonly Schemas['ServiceEntry'][];
}) {
  const worst = a.parts.reduce<Schemas['PartAnswer'] | undefined>(
    (most, p) => (most && most.driftKelvin >= p.driftKelvin ? most : p),
    undefined,
  );
  const [picked, setPicked] = useState<string | null>(null);
  const [span, setSpan] = useState<Span | null>(null);
  const part = a.parts.find((p) => p.part === picked) ?? worst;
  const work = workOf(a);
  const chart = { tag: a.asset, services, asOf: a.asOf, span, onSpan: setSpan };
  return (
    <>
      <section className="section" aria-label={t`Judgement`}>
        <p className="lead beside">
          <CauseMark cause={causeShown(a)} size={24} />
          <span>
            <strong>
              {URGENCY_WORDS[a.urgency]}
              {causeShown(a) !== 'none' && ` · ${CAUSE_WORDS[causeShown(a)]}`}.
            </strong>{' '}
            {say(a.reasonMessage)}
            {a.warranty && ` ${say(a.warranty.message)}`}
          </span>
        </p>
        <p className="quiet">
          {t`As of ${fullDay(a.asOf)}`}
          {a.pending && t` (newer data is being judged)`} {t`from ${a.readings.toLocaleString()} readings`}
          {a.runs > 0 &&
            plural(a.runs, { one: ' and one run at the bench', other: ' and # runs at the bench' })}
          {a.measuredAt && t`, measured last ${measuredWords(a) ?? ''}`}
          {a.evidenceMessage && t` · evidence ${say(a.evidenceMessage)}`}
          {work.what && ` · ${[work.what, work.takes, work.when].filter(Boolean).join(', ')}`}
          {a.due &&
            a.dueLevel &&
            a.dueLevel !== a.service &&
            (a.dueAsked
              ? t` · ${levelName(a.dueLevel)} due ${day(a.due)}, by the calendar ${day(a.dueAsked)}`
              : t` · ${levelName(a.dueLevel)} due ${day(a.due)}`)}
        </p>
        {a.silence && <p>{say(a.silence.message)}</p>}
        {a.measure && (
          <p>
            <strong>{t`The run that would tell most:`}</strong>{' '}
            {sayAll(a.measure.whatMessage, a.measure.whyMessage)}
          </p>
        )}
      </section>
      {part && (
        <div className="machine-grid">
          <section aria-label={t`Drift`}>
            <div className="section-head">
              <h2>{t`Drift of the ${partName(part.part)}`}</h2>
              {a.parts.length > 1 && (
                <Segmented
                  size="small"
                  aria-label={t`Part`}
                  value={part.part}
                  onChange={setPicked}
                  options={a.parts.map((p) => ({ label: partName(p.part), value: p.part }))}
                />
              )}
            </div>
            <DriftChart {...chart} part={part} />
            <ResidualChart {...chart} part={part} steps={a.steps} />
            <PartsTable a={a} />
            <WaitingTable of="assets" name={a.asset} judgedAt={a.judgedAt} />
          </section>
          <section aria-label={t`Heat path`}>
            <div className="section-head">
              <h2>{t`Heat path`}</h2>
            </div>
            <HeatPath part={part} measured={measuredWords(a)} />
            <LevelsTable levels={a.levels} currency={a.currency} years={a.payBackYears} advised={a.service} />
          </section>
        </div>
      )}
      <section className="section" aria-label={t`How this was calculated`}>
        <div className="section-head">
          <h2>{t`How this was calculated`}</h2>
        </div>
        <ul className="bullets text-width">
          {a.sentenceMessages.map(say).map((s) => (
            <li key={s}>{s}</li>
          ))}
          {a.toBeSurerMessage && !a.measure && (
            <li>
              <strong>{t`To be more certain:`}</strong> {say(a.toBeSurerMessage)}
            </li>
          )}
        </ul>
      </section>
      <WhyNot alternatives={a.whyNot} />
    </>
  );
}
