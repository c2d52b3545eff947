import { t } from '@lingui/core/macro';
import { Link } from 'react-router';
import { clockAt, minutes, weekday } from '../../words/format';
import { say } from '../../words/message';
import type { DayBoard, Person } from './board';
import { nameOf, togetherWords, workWords } from './jobWords';
import { Beside, edge, Mark } from './TrackRow';

/** One day on a phone: person by person, job by job. */
export function DayLines({
  board,
  people,
  picked,
  onPick,
}: {
  board: DayBoard;
  people: readonly Person[];
  picked: string | null;
  onPick: (id: string) => void;
}) {
  const tracks = board.tracks.filter((track) => track.jobs.length > 0 || track.away !== null);
  if (tracks.length === 0) return null;
  return (
    <section className="weeks-day" aria-label={weekday(board.day)}>
      <h2>{weekday(board.day)}</h2>
      {tracks.map((track) => (
        <div key={track.person.code}>
          <p className="small quiet no-gap">
            {track.person.name}
            {track.away !== null && ` · ${track.away === '' ? t`away` : t`away: ${track.away}`}`}{' '}
            {track.jobs.length > 0 && (
              <Link
                className="alone"
                to={`/weeks/sheet/${track.person.code}/${board.day}`}
              >{t`Day sheet`}</Link>
            )}
          </p>
          {track.jobs.map((job) => (
            <button
              type="button"
              key={job.id}
              className="weeks-line"
              aria-pressed={picked === job.id}
              style={{ borderInlineStartColor: edge(job) }}
              onClick={() => onPick(job.id)}
            >
              <span className="figures">{clockAt(job.from)}</span>
              <span>
                <Mark job={job} /> <Beside job={job} />{' '}
                <span className="figures unbroken">{nameOf(job)}</span> {workWords(job)} ·{' '}
                {minutes(job.minutes)}
                <span className="block small quiet">
                  {job.zoneName}
                  {job.campaign !== null && ` · ${t`Campaign: ${job.campaign}`}`}
                  {job.help !== null && ` · ${togetherWords(job, people)}`}
                </span>
                {job.conflict && <span className="block small">{say(job.conflict)}</span>}
              </span>
            </button>
          ))}
        </div>
      ))}
    </section>
  );
}
