import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import { Button } from 'antd';
import { ProblemError } from '../../api/client';
import { takenWords } from '../../words/format';
import { download } from '../../words/csv';
import { Refusal } from '../../ui/Refusal';
import { RefusedLines } from './RefusedLines';
import { Working } from './Working';
import { refusedCsv, type FileKind, type ImportAnswer, type Progress } from './upload';
import { say } from '../../words/message';

const KINDS: Record<FileKind, string> = {
  fleet: t`machines and zones`,
  readings: t`readings`,
  services: t`services done`,
  table: t`a list of machines`,
  log: t`a sensor log`,
};

/** A file on its way in. */
export interface Entry {
  id: number;
  file: File;
  kind: FileKind | null;
  state: 'waiting' | 'working' | 'done' | 'failed';
  progress: Progress;
  answer?: ImportAnswer;
  error?: Error | undefined;
}

/** What becomes of one file: progress, a question, or what was taken and refused. */
export function Report({
  entry,
  onStop,
  onForm,
}: {
  entry: Entry;
  onStop: () => void;
  onForm: (form: Record<string, string>) => void;
}) {
  const { progress, answer } = entry;
  return (
    <section className="section" aria-label={entry.file.name}>
      <div className="section-head">
        <h2>
          {entry.file.name}{' '}
          <span className="quiet light">
            {t`${entry.kind ? KINDS[entry.kind] : t`not known`} · ${(entry.file.size / 1024 / 1024).toLocaleString(undefined, { maximumFractionDigits: 1 })} MB`}
          </span>
        </h2>
      </div>
      {entry.state === 'waiting' && <p className="quiet">{t`waits for the one before it`}</p>}
      {entry.state === 'working' && <Working progress={progress} onStop={onStop} />}
      {entry.error && <Refusal error={entry.error} />}
      {entry.error instanceof ProblemError &&
        entry.error.problem.questions?.map((q) => (
          <p key={q.about} className="bench-more">
            {say(q.says)}{' '}
            {q.choices.map((choice) => (
              <Button key={choice} type="primary" onClick={() => onForm({ [q.about]: choice })}>
                {t`Read it so`}
              </Button>
            ))}
          </p>
        ))}
      {answer && <Answer answer={answer} name={entry.file.name} />}
    </section>
  );
}

function Answer({ answer, name }: { answer: ImportAnswer; name: string }) {
  const warnings = answer.warningMessages.map(say);
  const refused = 'rejected' in answer ? answer.rejected : [];
  return (
    <div role="status">
      {'created' in answer ? (
        <p>
          <Trans>
            <strong>{plural(answer.created, { one: '# machine', other: '# machines' })} new</strong>,{' '}
            {answer.updated} changed, {answer.unchanged} as they were.
          </Trans>
        </p>
      ) : (
        <p>
          <strong>{takenWords(answer.accepted, answer.duplicates, 'line')}</strong>
          {answer.rejectedCount > 0 &&
            t` ${plural(answer.rejectedCount, { one: '# line', other: '# lines' })} refused.`}
        </p>
      )}
      {warnings.length > 0 && (
        <ul className="quiet bullets">
          {warnings.slice(0, 12).map((w) => (
            <li key={w}>{w}</li>
          ))}
          {warnings.length > 12 && <li>{t`and ${warnings.length - 12} more`}</li>}
        </ul>
      )}
      {refused.length > 0 && (
        <>
          <RefusedLines refused={refused} />
          <p className="apart-small">
            <Button
              onClick={() =>
                download(`${name.replace(/(\.csv)?(\.gz)?$/, '')}-refused.csv`, refusedCsv(refused))
              }
            >
              {t`Download the refused lines (${refused.length.toLocaleString()})`}
            </Button>
          </p>
        </>
      )}
    </div>
  );
}
