import { t } from '@lingui/core/macro';
import { Alert, Button } from 'antd';
import { ProblemError } from '../api/client';
import { refusal, say } from '../words/message';

/** Why something could not be done, in the server's words, with a way to try again. */
export function Refusal({ error, retry }: { error: Error; retry?: () => void }) {
  const problems = error instanceof ProblemError ? (error.problem.errors ?? []) : [];
  return (
    <Alert
      type="warning"
      role="alert"
      title={refusal(error)}
      description={
        problems.length > 1 ? (
          <ul className="bullets">
            {problems.slice(0, 12).map((p, i) => (
              <li key={i}>
                {p.pointer && <code>{p.pointer} </code>}
                {p.line !== undefined && <code>{t`line ${p.line}`} </code>}
                {say(p.says)}
              </li>
            ))}
          </ul>
        ) : undefined
      }
      action={retry && <Button onClick={retry}>{t`Try again`}</Button>}
    />
  );
}
