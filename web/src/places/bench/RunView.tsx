import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import type { Schemas } from '../../api/client';
import { instant, kelvin, partName, useTemperature } from '../../words/format';
import { fanWords } from '../../words/measured';

/** A run in one line of figures. */
export function RunView({
  title,
  run,
  at,
  parts,
  struck = false,
  onVoid,
}: {
  title: string;
  run: Schemas['RunAnswer'];
  at: string | null;
  parts: readonly string[];
  struck?: boolean;
  onVoid?: (() => void) | undefined;
}) {
  const { exact } = useTemperature();
  const measured = [...run.parts].sort((a, b) => parts.indexOf(a.part) - parts.indexOf(b.part));
  const fan = fanWords(run.fan.mode);
  return (
    <div className="ruled run-line">
      <div style={{ flex: 1 }} className={struck ? 'struck' : undefined}>
        <strong>{title}</strong> <span className="quiet small">{at && instant(at)}</span>
        <div className="figures">
          {measured
            .map(
              (p) =>
                `${partName(p.part)} ${exact(p.celsius)}${typeof p.maximumCelsius === 'number' ? t` (max ${exact(p.maximumCelsius)})` : ''}`,
            )
            .join(' · ')}
        </div>
        <div className="quiet small">
          {t`${run.workload}, ${run.minutes} min · air ${run.ambientCelsius === null ? t`not written down` : exact(run.ambientCelsius)} · fan ${fan}`}
          {run.fan.percent !== null && ` ${String(run.fan.percent)} %`}
          {run.fan.rpm !== null && t` ${String(run.fan.rpm)} rpm`} · {run.settings}
          {run.powerWatts !== null && ` · ${String(run.powerWatts)} W`}
          {typeof run.ambientSpreadKelvin === 'number' &&
            t` · air guessed to ± ${kelvin(run.ambientSpreadKelvin)}`}
          {run.position && ` · ${run.position}`}
          {run.throttled && t` · throttled`}
          {typeof run.failedAfterMinutes === 'number' &&
            t` · failed after ${String(run.failedAfterMinutes)} min`}
        </div>
      </div>
      {onVoid && (
        <Button size="small" type="text" onClick={onVoid}>
          {t`Strike out`}
        </Button>
      )}
    </div>
  );
}
