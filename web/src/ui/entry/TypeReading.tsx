import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useState } from 'react';
import { api, unwrap } from '../../api/client';
import { useWrite } from '../../api/queries';
import { capital, partName, useTemperature } from '../../words/format';
import { say } from '../../words/message';
import { NumberField } from '../NumberField';
import { Refusal } from '../Refusal';
import { readingOf } from './running';

/** A reading typed by hand: what the machine shows under load now. */
export function TypeReading({
  tag,
  parts,
  onKept,
  keep = t`Keep this reading`,
}: {
  tag: string;
  parts: readonly string[];
  onKept: () => void;
  keep?: string;
}) {
  const temperature = useTemperature();
  const [air, setAir] = useState<number | null>(() => airOfTheDay());
  const [power, setPower] = useState<number | null>(null);
  const [rpm, setRpm] = useState<number | null>(null);
  const [celsius, setCelsius] = useState<Record<string, number | null>>({});
  const write = useWrite(async () => {
    const toCelsius = (v: number | null) => (v === null ? null : temperature.toCelsius(v));
    const body = readingOf(tag, new Date().toISOString(), {
      air: toCelsius(air),
      power,
      rpm,
      parts: Object.fromEntries(Object.entries(celsius).map(([p, v]) => [p, toCelsius(v)])),
    });
    const answer = await unwrap(
      api.POST('/api/v1/readings', {
        headers: { 'Content-Type': 'text/csv' },
        body: body as never,
        bodySerializer: (text: unknown) => text as never,
      }),
    );
    if (answer.rejected.length > 0) throw new Error(say(answer.rejected[0]!.says));
    if (air !== null) keepAir(air);
  });
  const some = parts.some((p) => typeof celsius[p] === 'number');
  return (
    <form
      className="type-reading"
      onSubmit={(e) => {
        e.preventDefault();
        if (some) write.mutate(undefined, { onSuccess: onKept });
      }}
    >
      {write.isError && <Refusal error={write.error} />}
      <div className="type-fields">
        {parts.map((p) => (
          <label key={p}>
            {capital(partName(p))}, °{temperature.unit}
            <NumberField
              inputMode="decimal"
              size="large"
              min={-40}
              max={400}
              value={celsius[p] ?? null}
              onChange={(v) => setCelsius({ ...celsius, [p]: v })}
            />
          </label>
        ))}
        <label>
          {t`Air, °${temperature.unit}`}
          <NumberField inputMode="decimal" size="large" min={-40} max={150} value={air} onChange={setAir} />
        </label>
        <label>
          {t`Fan, rpm`}
          <NumberField inputMode="numeric" size="large" min={0} max={100000} value={rpm} onChange={setRpm} />
        </label>
        <label>
          {t`Power, W`}
          <NumberField
            inputMode="decimal"
            size="large"
            min={0}
            max={10000}
            value={power}
            onChange={setPower}
          />
        </label>
      </div>
      <Button type="primary" size="large" htmlType="submit" disabled={!some} loading={write.isPending}>
        {keep}
      </Button>
      <p className="quiet small apart-small">
        {t`Under load, and warm: ten minutes at the least. An empty field was not measured.`}
      </p>
    </form>
  );
}

const AIR = 'pyrometron.air';

/** The air is measured once a room: the last one of the hour is offered again. */
function airOfTheDay(): number | null {
  try {
    const kept = JSON.parse(localStorage.getItem(AIR) ?? 'null') as { at: number; air: number } | null;
    return kept && Date.now() - kept.at < 3_600_000 ? kept.air : null;
  } catch {
    return null;
  }
}

const keepAir = (air: number) => localStorage.setItem(AIR, JSON.stringify({ at: Date.now(), air }));
