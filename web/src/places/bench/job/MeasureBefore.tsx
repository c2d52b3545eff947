import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useState } from 'react';
import { AskReason } from '../../../ui/AskReason';
import { RunForm } from '../RunForm';
import type { BenchJob } from '../useBenchJob';

/** No before-run, no proof. */
export function MeasureBefore({ job, write }: BenchJob) {
  const [without, setWithout] = useState(false);
  return (
    <>
      <h1>{t`Measure before you open it.`}</h1>
      <p className="quiet">
        {t`A known load for a known time, the fan fixed if it can be, and the air written down: no before-run, no proof.`}
      </p>
      <RunForm job={job} write={write} phase="before" />
      <Button type="text" onClick={() => setWithout(true)}>
        {t`It cannot be measured …`}
      </Button>
      {without && (
        <AskReason
          title={t`Open it without a before-run`}
          text={t`Then nothing can be proven afterwards. Write down why.`}
          busy={false}
          confirm={t`Open it`}
          onClose={() => setWithout(false)}
          onReason={(reason) => write({ kind: 'before-excused', reason })}
        />
      )}
    </>
  );
}
