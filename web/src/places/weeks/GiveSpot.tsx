import { t } from '@lingui/core/macro';
import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { say } from '../../words/message';
import { daysLater, type Person, type Plan, type Spot } from './board';
import type { useDraft } from './useDraft';

const clockText = (minute: number) =>
  `${String(Math.floor((minute % 1440) / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;

/** A place chosen by fields: person, day and time. Told at once whether the job may stand there. */
export function GiveSpot({
  job,
  spot,
  people,
  plan,
  move,
  onDone,
}: {
  job: { id: string; minutes: number };
  spot: Spot;
  people: readonly Person[];
  plan: Plan;
  move: ReturnType<typeof useDraft>;
  onDone: () => void;
}) {
  const [at, setAt] = useState(spot);
  const { draft } = move;
  const held = draft?.id === job.id ? draft : null;
  const shown = held ?? at;
  const hold = (next: Spot) => {
    setAt(next);
    move.hold({ id: job.id, minutes: job.minutes, ...next });
  };
  return (
    <div className="weeks-spot stacked">
      <Select
        aria-label={t`Who`}
        value={shown.person}
        onChange={(person) => hold({ person, day: shown.day, from: shown.from })}
        options={people.map((p) => ({ value: p.code, label: p.name }))}
      />
      <div className="two-fields">
        <Input
          type="date"
          aria-label={t`Day`}
          min={plan.start}
          max={daysLater(plan.start, plan.days - 1)}
          value={shown.day}
          onChange={(e) =>
            e.target.value && hold({ person: shown.person, from: shown.from, day: e.target.value })
          }
        />
        <Input
          type="time"
          aria-label={t`Begins at`}
          step={300}
          value={clockText(shown.from)}
          onChange={(e) => {
            const [h, m] = e.target.value.split(':').map(Number);
            if (h !== undefined && m !== undefined && !Number.isNaN(h + m))
              hold({ person: shown.person, day: shown.day, from: h * 60 + m });
          }}
        />
      </div>
      <p role="status" className="small no-gap">
        {held?.conflict === undefined && held && t`Looking whether it can stand there …`}
        {held?.conflict && say(held.conflict)}
        {held?.conflict === null && t`It can stand there.`}
      </p>
      <div className="button-row">
        <Button
          type="primary"
          disabled={held?.conflict !== null}
          loading={move.place.isPending}
          onClick={() => void move.putDown().then(onDone, () => undefined)}
        >
          {t`Put it there`}
        </Button>
        <Button
          onClick={() => {
            move.hold(null);
            onDone();
          }}
        >
          {t`Cancel`}
        </Button>
      </div>
    </div>
  );
}
