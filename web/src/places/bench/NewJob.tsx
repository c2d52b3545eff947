import { t } from '@lingui/core/macro';
import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Schemas, ServiceLevel } from '../../api/client';
import { useMachine, useNotes, usePolicy } from '../../api/queries';
import { useMay } from '../../api/session';
import { fullDay } from '../../words/format';
import { SYMPTOM_WORDS } from '../../words/work';
import { useStartJob } from '../../ui/useStartJob';
import { usePageTitle } from '../../ui/usePageTitle';
import '../../ui/work.css';
import { AskFields } from './job/AskFields';
import { levelChoices, levelName } from '../../words/work';
import { Refusal } from '../../ui/Refusal';
import { Unready } from '../../ui/Unready';

/** What has to be said before a job can start: which fan, and under warranty the maker's answer. */
export function NewJob() {
  const [params] = useSearchParams();
  const asset = params.get('asset') ?? '';
  const machine = useMachine(asset);
  const [level, setLevel] = useState<ServiceLevel>(
    (params.get('level') as ServiceLevel | null) ?? 'dust-out',
  );
  usePageTitle(t`A new job`);
  if (!machine.data) return <Unready of={[machine]} title={t`A new job`} missing={t`machine ${asset}`} />;
  return (
    <Questions
      asset={asset}
      model={machine.data.model}
      levels={machine.data.levels}
      warranty={machine.data.warrantyUntil}
      reports={machine.data.symptoms.filter((s) => s.withdrawnReason === null)}
      level={level}
      setLevel={setLevel}
    />
  );
}

function Questions({
  asset,
  model,
  levels,
  warranty,
  reports,
  level,
  setLevel,
}: {
  asset: string;
  model: string;
  levels: readonly ServiceLevel[];
  warranty: string | null;
  reports: readonly Schemas['SymptomEntry'][];
  level: ServiceLevel;
  setLevel: (level: ServiceLevel) => void;
}) {
  const start = useStartJob();
  const mayWork = useMay('work');
  const notes = useNotes(model);
  const school = usePolicy().data?.bench?.warranty;
  const [answer, setAnswer] = useState('');
  const [fan, setFan] = useState<string | null>(null);
  const [report, setReport] = useState<number | null>(reports[0]?.id ?? null);
  const told = reports.find((r) => r.id === report);
  const fans = notes.data?.notes.fans ?? [];
  const guarded =
    warranty !== null &&
    warranty >= new Date().toISOString().slice(0, 10) &&
    !['inspect', 'blow-out', 'undervolt', 'stand', 'filter'].includes(level) &&
    school !== 'open-where-allowed';
  return (
    <div className="page text-width">
      <h1>
        {asset}: {guarded ? t`it is under warranty.` : t`before it starts.`}
      </h1>
      <AskFields>
        <label>
          {t`What is to be done`}
          <Select
            aria-label={t`Level`}
            value={level}
            onChange={setLevel}
            className="full"
            options={levelChoices(levels)}
          />
        </label>
        {level === 'fan-swap' && fans.length > 0 && (
          <label>
            {t`Which fan`}
            <Select
              aria-label={t`Fan`}
              value={fan}
              onChange={setFan}
              className="full"
              placeholder={t`the one to be changed`}
              options={fans.map((f) => ({
                value: f.name,
                label: `${f.name}: ${f.comesOffAlone ? t`comes off alone` : t`only with the cooler, which brings new paste`}`,
              }))}
            />
          </label>
        )}
        {reports.length > 0 && (
          <label>
            {t`What it came in for`}
            <Select<number | null>
              aria-label={t`Report`}
              value={report}
              onChange={setReport}
              className="full"
              options={[
                ...reports.map((r) => ({
                  value: r.id,
                  label: t`${SYMPTOM_WORDS[r.kind]}, reported ${fullDay(r.date)}${r.note ? `: ${r.note}` : ''}`,
                })),
                { value: null, label: t`none of these` },
              ]}
            />
          </label>
        )}
        {guarded && (
          <>
            <p>
              {t`Its warranty runs until ${fullDay(warranty)}. ${
                school === 'ask-first'
                  ? t`This house asks its maker or seller first.`
                  : t`This house then uses air only, until it ends.`
              } Local law and the maker’s terms come first.`}
            </p>
            <Button size="large" onClick={() => start.mutate({ asset, level: 'blow-out' })}>
              {t`Blow it out only: nothing is opened`}
            </Button>
            <label>
              {school === 'ask-first' ? t`The answer` : t`Why it is opened all the same`}
              <Input.TextArea
                rows={2}
                maxLength={500}
                value={answer}
                onChange={(e) => setAnswer(e.target.value)}
              />
            </label>
          </>
        )}
        <Button
          size="large"
          type="primary"
          disabled={!mayWork || (guarded && answer.trim() === '')}
          loading={start.isPending}
          onClick={() =>
            start.mutate({
              asset,
              level,
              fan,
              warrantyAnswer: answer.trim() || null,
              complaint: told ? complaintOf(told) : null,
            })
          }
        >
          {t`Start: ${levelName(level)}`}
        </Button>
        {start.isError && <Refusal error={start.error} />}
      </AskFields>
    </div>
  );
}

const COMPLAINT_OF: Record<Schemas['SymptomKind'], Schemas['ComplaintKind']> = {
  shutdown: 'switches-off',
  crash: 'crashes',
  throttling: 'slow',
  noise: 'loud',
  wet: 'got-wet',
  smell: 'smells',
  dropped: 'dropped',
  other: 'other',
};

/** The report as the job's complaint. */
const complaintOf = (report: Schemas['SymptomEntry']): Schemas['ComplaintRecorded'] => ({
  what: COMPLAINT_OF[report.kind],
  load: null,
  minutesToFailure: report.minutesToFailure,
  reproduced: null,
  inWords: report.note ?? (report.kind === 'other' ? t`as reported` : null),
});
