import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Button, Skeleton } from 'antd';
import { Link } from 'react-router';
import { api, unwrap, type QueueItem } from '../../api/client';
import { useAssessment, useWrite } from '../../api/queries';
import { useMay } from '../../api/session';
import { capital, day, kelvin, money, partName } from '../../words/format';
import { measuredWords } from '../../words/measured';
import { say, sayAll } from '../../words/message';
import { HeatPath } from '../../ui/marks/HeatPath';
import { Refusal } from '../../ui/Refusal';
import type { StartJob } from '../../ui/useStartJob';
import { levelName } from '../../words/work';

/** The machine picked on Rounds: its heat path, what work should win, and the way to the bench. */
export function SidePanel({
  item,
  onSetAside,
  startJob,
}: {
  item: QueueItem;
  onSetAside: () => void;
  startJob: StartJob;
}) {
  const mayWork = useMay('work');
  const assessment = useAssessment(item.asset);
  const takeBack = useWrite((tag: string) =>
    unwrap(api.DELETE('/api/v1/assets/{tag}/set-aside', { params: { path: { tag } } })),
  );
  const a = assessment.data;
  const part = a?.parts.find((p) => p.part === item.strip?.part) ?? a?.parts[0];
  const won = part?.gainKelvin ?? 0;
  const advised = a?.levels.find((l) => l.level === a.service);
  return (
    <>
      <div className="figures heavy">{item.asset}</div>
      <p className="small quiet">
        {item.model} · {item.zoneName}
      </p>
      <p>
        {item.setAside
          ? t`Set aside until ${day(item.setAside.until)}: ${item.setAside.reason}`
          : say(item.reasonMessage)}
      </p>
      {assessment.isError && <Refusal error={assessment.error} />}
      {assessment.isPending && <Skeleton active />}
      {a && part && (
        <>
          <div className="section-head apart">
            <h2>{t`Heat path, ${partName(part.part)}`}</h2>
          </div>
          <HeatPath part={part} measured={measuredWords(a)} height={330} />
        </>
      )}
      {a && (
        <p className="apart">
          {a.service && won >= 1 ? (
            <>
              <Trans>
                {capital(levelName(a.service))} should win{' '}
                <strong>
                  {kelvin(Math.max(0, won - part!.uncertaintyKelvin))} to{' '}
                  {kelvin(won + part!.uncertaintyKelvin)}
                </strong>{' '}
                on the {partName(part!.part)}.{' '}
              </Trans>
            </>
          ) : null}
          {advised && won >= 1
            ? t`Over ${plural(a.payBackYears, { one: 'a year', other: '# years' })} that is worth ${money(advised.value.net, a.currency)}, ${money(advised.perHour, a.currency)} for an hour of work. `
            : ''}
          {a.actionDate && a.actionDateEarly && a.actionDate !== a.asOf
            ? t`At its pace it reaches the action line around ${day(a.actionDate)}${
                a.actionDateLate
                  ? t` (${day(a.actionDateEarly)} to ${day(a.actionDateLate)})`
                  : t` (from ${day(a.actionDateEarly)})`
              }. `
            : ''}
          {item.warranty && `${say(item.warranty.message)} `}
          {!a.measure && a.toBeSurerMessage && say(a.toBeSurerMessage)}
        </p>
      )}
      {a?.silence && <p>{say(a.silence.message)}</p>}
      {a?.measure && (
        <p>
          <strong>{t`The run that would tell most:`}</strong>{' '}
          {sayAll(a.measure.whatMessage, a.measure.whyMessage)}
        </p>
      )}
      {a?.evidenceMessage && <p className="small quiet">{t`Evidence ${say(a.evidenceMessage)}.`}</p>}
      <div className="stacked apart">
        {item.job ? (
          <Link to={`/bench/${String(item.job.id)}`}>
            <Button type="primary" block>
              {item.job.state === 'open' ? t`To the job in hand` : t`To its proof`}
            </Button>
          </Link>
        ) : (
          item.service && (
            <Button
              type="primary"
              disabled={!mayWork}
              loading={startJob.isPending}
              onClick={() => startJob.mutate({ asset: item.asset, level: item.service! })}
            >
              {t`Start at the bench`}
            </Button>
          )
        )}
        {startJob.isError && startJob.variables.asset === item.asset && <Refusal error={startJob.error} />}
        <Link to={`/machines/${encodeURIComponent(item.asset)}`}>
          <Button block>{t`Open the machine`}</Button>
        </Link>
        {item.setAside ? (
          <Button loading={takeBack.isPending} onClick={() => takeBack.mutate(item.asset)}>
            {t`Put back into the queue`}
          </Button>
        ) : (
          <Button type="text" onClick={onSetAside}>
            {t`Looked, nothing to do …`}
          </Button>
        )}
      </div>
    </>
  );
}
