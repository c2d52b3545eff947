import { Button, Skeleton } from 'antd';
import { Link } from 'react-router';
import { api, unwrap, type QueueItem } from '../../api/client';
import { useAssessment, useWrite } from '../../api/queries';
import { capital, count, day, kelvin, money, partName } from '../../words/format';
import { measuredWords } from '../../words/measured';
import { say, sayAll } from '../../words/message';
import { HeatPath } from '../../ui/marks/HeatPath';
import { Refusal } from '../../ui/Refusal';
import type { StartJob } from '../../ui/useStartJob';

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
      <div className="figures" style={{ fontWeight: 700 }}>
        {item.asset}
      </div>
      <p className="small quiet">
        {item.model} · {item.zoneName}
      </p>
      <p>
        {item.setAside
          ? `Set aside until ${day(item.setAside.until)}: ${item.setAside.reason}`
          : say(item.reasonMessage)}
      </p>
      {assessment.isError && <Refusal error={assessment.error} />}
      {assessment.isPending && <Skeleton active />}
      {a && part && (
        <>
          <div className="section-head" style={{ marginTop: 14 }}>
            <h2>Heat path, {partName(part.part)}</h2>
          </div>
          <HeatPath part={part} measured={measuredWords(a)} height={330} />
        </>
      )}
      {a && (
        <p style={{ marginTop: 14 }}>
          {a.service && won >= 1 ? (
            <>
              {capital(a.service)} should win{' '}
              <strong>
                {kelvin(Math.max(0, won - part!.uncertaintyKelvin))} to{' '}
                {kelvin(won + part!.uncertaintyKelvin)}
              </strong>{' '}
              on the {partName(part!.part)}.{' '}
            </>
          ) : null}
          {advised && won >= 1
            ? `Over ${a.payBackYears === 1 ? 'a year' : count(a.payBackYears, 'year')} that is worth ${money(advised.value.net, a.currency)}, ${money(advised.perHour, a.currency)} for an hour of work. `
            : ''}
          {a.actionDate && a.actionDateEarly && a.actionDate !== a.asOf
            ? `At its pace it reaches the action line around ${day(a.actionDate)}${
                a.actionDateLate
                  ? ` (${day(a.actionDateEarly)} to ${day(a.actionDateLate)})`
                  : ` (from ${day(a.actionDateEarly)})`
              }. `
            : ''}
          {item.warranty && `${say(item.warranty.message)} `}
          {!a.measure && a.toBeSurerMessage && say(a.toBeSurerMessage)}
        </p>
      )}
      {a?.silence && <p>{say(a.silence.message)}</p>}
      {a?.measure && (
        <p>
          <strong>The run that would tell most:</strong> {sayAll(a.measure.whatMessage, a.measure.whyMessage)}
        </p>
      )}
      {a?.evidenceMessage && <p className="small quiet">Evidence {say(a.evidenceMessage)}.</p>}
      <div style={{ display: 'grid', gap: 8, marginTop: 12 }}>
        {item.job ? (
          <Link to={`/bench/${String(item.job.id)}`}>
            <Button type="primary" block>
              {item.job.state === 'open' ? 'To the job in hand' : 'To its proof'}
            </Button>
          </Link>
        ) : (
          item.service && (
            <Button
              type="primary"
              loading={startJob.isPending}
              onClick={() => startJob.mutate({ asset: item.asset, level: item.service! })}
            >
              Start at the bench
            </Button>
          )
        )}
        <Link to={`/machines/${encodeURIComponent(item.asset)}`}>
          <Button block>Open the machine</Button>
        </Link>
        {item.setAside ? (
          <Button loading={takeBack.isPending} onClick={() => takeBack.mutate(item.asset)}>
            Put back into the queue
          </Button>
        ) : (
          <Button type="text" onClick={onSetAside}>
            Looked, nothing to do …
          </Button>
        )}
      </div>
    </>
  );
}
