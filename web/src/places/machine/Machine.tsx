import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Button, Dropdown, Modal } from 'antd';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { type ServiceLevel } from '../../api/client';
import { useAssessment, useMachine } from '../../api/queries';
import { useMay } from '../../api/session';
import { levelName } from '../../words/work';
import { AddMachines } from '../../ui/entry/AddMachines';
import '../../ui/entry/entry.css';
import { TypeReading } from '../../ui/entry/TypeReading';
import { fullDay } from '../../words/format';
import { SetAside } from '../../ui/SetAside';
import { useStartJob } from '../../ui/useStartJob';
import { Refusal } from '../../ui/Refusal';
import { usePageTitle } from '../../ui/usePageTitle';
import { Book } from './Book';
import { EditMachine } from './EditMachine';
import { InCampaigns } from './InCampaigns';
import { Judgement } from './Judgement';
import './machine.css';
import { MachineRules } from './MachineRules';
import { Readings } from './Readings';
import { ReportSymptom } from './Reports';
import { Retire } from './Retire';
import { Unready } from '../../ui/Unready';

/** One machine: how its heat flows, how that has changed, what was done to it. */
export function Machine() {
  const tag = useParams()['tag'] ?? '';
  usePageTitle(tag);
  const machine = useMachine(tag);
  const assessment = useAssessment(machine.data && !machine.data.retiredOn ? tag : null);
  const [open, setOpen] = useState<'edit' | 'retire' | 'aside' | 'report' | 'reading' | 'copy' | null>(null);
  const startJob = useStartJob();
  const mayWork = useMay('work');

  if (!machine.data) return <Unready of={[machine]} title={tag} missing={t`machine ${tag}`} />;

  const m = machine.data;
  const a = assessment.data;
  const job = m.jobs.find((j) => j.state === 'open') ?? m.jobs.find((j) => j.state === 'waiting-for-proof');
  return (
    <div className="page">
      <div className="page-head">
        <div>
          <h1>
            <span className="figures">{m.tag}</span> <span className="quiet light">{m.model}</span>
          </h1>
          <p className="quiet">
            {t`${m.zoneName} · ${m.dutyHoursPerDay} h a day · in service since ${fullDay(m.inServiceSince)}`}
            {m.warrantyUntil && t` · warranty until ${fullDay(m.warrantyUntil)}`}
            {m.hostTag && (
              <>
                <Trans>
                  {' '}
                  · in <Link to={`/machines/${encodeURIComponent(m.hostTag)}`}>{m.hostTag}</Link>
                </Trans>
              </>
            )}
          </p>
        </div>
        <div className="button-row">
          {!m.retiredOn &&
            (job ? (
              <Link to={`/bench/${String(job.id)}`}>
                <Button type="primary">
                  {job.state === 'open' ? t`To the job in hand` : t`To its proof`}
                </Button>
              </Link>
            ) : (
              <>
                {a?.service && (
                  <Button
                    type="primary"
                    disabled={!mayWork}
                    loading={startJob.isPending}
                    onClick={() => startJob.mutate({ asset: m.tag, level: a.service! })}
                  >
                    {t`Start ${levelName(a.service)}`}
                  </Button>
                )}
                <Dropdown
                  trigger={['click']}
                  menu={{
                    items: m.levels
                      .filter((l) => l !== a?.service)
                      .map((l) => ({ key: l, label: levelName(l) })),
                    onClick: ({ key }) => startJob.mutate({ asset: m.tag, level: key as ServiceLevel }),
                  }}
                >
                  <Button>{a?.service ? t`Another level` : t`Start a job`} ▾</Button>
                </Dropdown>
              </>
            ))}
          {startJob.isError && <Refusal error={startJob.error} />}
          {!m.retiredOn && <Button onClick={() => setOpen('reading')}>{t`Type a reading`}</Button>}
          {!m.retiredOn && <Button onClick={() => setOpen('report')}>{t`Report a symptom`}</Button>}
          <Button onClick={() => setOpen('edit')}>{t`Edit`}</Button>
          <Button onClick={() => setOpen('copy')}>{t`Add alike`}</Button>
          {!m.retiredOn && <Button onClick={() => setOpen('aside')}>{t`Set aside`}</Button>}
          <Button onClick={() => setOpen('retire')}>{m.retiredOn ? t`Put back into use` : t`Retire`}</Button>
        </div>
      </div>

      {m.retiredOn ? (
        <p className="apart">
          {t`Retired on ${fullDay(m.retiredOn)}: ${m.retiredReason ?? '–'}. It is not judged any more; its history stays.`}
        </p>
      ) : a ? (
        <Judgement a={a} services={m.services} />
      ) : (
        <Unready of={[assessment]} as="part" />
      )}

      {!m.retiredOn && <InCampaigns tag={m.tag} />}
      <Book machine={m} steps={a?.steps ?? []} />
      {!m.retiredOn && <MachineRules tag={m.tag} />}
      <Readings tag={m.tag} parts={m.parts.map((p) => p.part)} />

      {open === 'reading' && (
        <Modal title={t`${m.tag}: under load now`} open footer={null} onCancel={() => setOpen(null)}>
          <TypeReading tag={m.tag} parts={m.parts.map((p) => p.part)} onKept={() => setOpen(null)} />
        </Modal>
      )}
      {open === 'copy' && <AddMachines like={m} onClose={() => setOpen(null)} />}
      {open === 'report' && <ReportSymptom tag={m.tag} onClose={() => setOpen(null)} />}
      {open === 'edit' && <EditMachine machine={m} onClose={() => setOpen(null)} />}
      {open === 'retire' && <Retire machine={m} onClose={() => setOpen(null)} />}
      {open === 'aside' && <SetAside tags={[m.tag]} onClose={() => setOpen(null)} />}
    </div>
  );
}
