import { t } from '@lingui/core/macro';
import { Link } from 'react-router';
import { clockAt, minutes, weekday } from '../../words/format';
import {
  hoursShown,
  load,
  windowsOn,
  type DayBoard,
  type Person,
  type Plan,
  type Track,
  type ZoneTimes,
} from './board';
import { FigureBreakdown } from '../../ui/FigureBreakdown';
import { loadLines } from './making';
import { TrackRow } from './TrackRow';
import type { useDraft } from './useDraft';

/**
 * One day: its people as tracks over the hours.
 * @param zone That of the job picked: when it may be worked on is drawn.
 */
export function Day({
  board,
  plan,
  people,
  zone,
  picked,
  onPick,
  move,
}: {
  board: DayBoard;
  plan: Plan;
  people: readonly Person[];
  zone: ZoneTimes | undefined;
  picked: string | null;
  onPick: (id: string) => void;
  move: ReturnType<typeof useDraft>;
}) {
  const hours = hoursShown(plan);
  const isHeld = move.draft?.day === board.day;
  if (!board.isWorked && !isHeld)
    return (
      <p className="weeks-free quiet small">
        {weekday(board.day)} · {t`nobody works`}
      </p>
    );
  const marks = Array.from({ length: (hours.to - hours.from) / 120 + 1 }, (_, i) => hours.from + i * 120);
  return (
    <section className="weeks-day" aria-label={weekday(board.day)}>
      <div className="weeks-row weeks-head">
        <h2>{weekday(board.day)}</h2>
        <div className="weeks-hours figures small quiet" aria-hidden>
          {marks
            .filter((m) => m <= hours.to)
            .map((m) => (
              <span
                key={m}
                style={{ insetInlineStart: `${String(((m - hours.from) / (hours.to - hours.from)) * 100)}%` }}
              >
                {clockAt(m)}
              </span>
            ))}
        </div>
      </div>
      {board.closed.length > 0 && (
        <p className="weeks-closed small quiet">
          {board.closed
            .map(({ name, reason }) =>
              reason === '' ? t`${name} is closed` : t`${name} is closed: ${reason}`,
            )
            .join('; ')}
        </p>
      )}
      {board.tracks.map((track) => (
        <div className="weeks-row" key={track.person.code}>
          <span className="weeks-who small">
            {track.jobs.length > 0 ? (
              <Link to={`/weeks/sheet/${track.person.code}/${board.day}`} title={t`Day sheet`}>
                {track.person.name}
              </Link>
            ) : (
              track.person.name
            )}
            <Load track={track} />
          </span>
          <TrackRow
            track={track}
            day={board.day}
            hours={hours}
            windows={windowsOn(zone, board.day)}
            plan={plan}
            people={people}
            picked={picked}
            onPick={onPick}
            move={move}
          />
        </div>
      ))}
    </section>
  );
}

function Load({ track }: { track: Track }) {
  const { work, shift } = load(track);
  if (work === 0 || shift === 0) return null;
  return (
    <span className="block quiet weeks-load">
      <FigureBreakdown title={t`Work of this day`} lines={loadLines(track)}>
        {t`${minutes(work)} of ${minutes(shift)}`}
      </FigureBreakdown>
    </span>
  );
}
