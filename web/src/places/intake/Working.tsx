import { plural, t } from '@lingui/core/macro';
import { Button, Progress as Bar } from 'antd';
import type { Progress } from './upload';

/** Of the whole, the share that sending takes where the server then works through the file. */
const SENDING = 0.3;

/** A file on its way in: how far it is, and the way to stop it. */
export function Working({ progress, onStop }: { progress: Progress; onStop: () => void }) {
  return (
    <div role="status">
      <Bar
        percent={Math.round((progress.sent * SENDING + progress.worked * (1 - SENDING)) * 100)}
        strokeColor="var(--ink)"
        status="active"
        aria-label={t`Progress`}
      />
      <span className="quiet">
        {progress.sent < 1
          ? t`sending`
          : progress.lines > 0
            ? t`${plural(progress.lines, { one: '# line', other: '# lines' })} done`
            : t`being read`}
      </span>{' '}
      <Button size="small" onClick={onStop}>
        {t`Stop`}
      </Button>
    </div>
  );
}
