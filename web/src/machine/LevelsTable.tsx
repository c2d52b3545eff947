import type { Schemas } from '../api/client';
import { count, kelvin, minutes, partName } from '../lib/format';

/**
 * What each level of service would win, and the time it takes: the net value of opening further. Where at least two proven jobs
 * of the model speak, with the share of its prediction that the level has won.
 */
export function LevelsTable({
  levels,
  advised,
}: {
  levels: readonly Schemas['LevelWorth'][];
  advised: Schemas['ServiceLevel'] | null;
}) {
  if (levels.length === 0) return null;
  return (
    <section aria-label="What each level would win" style={{ marginTop: 18 }}>
      <div className="section-head">
        <h2>What each level would win</h2>
      </div>
      <table className="plain-table">
        <tbody>
          {levels.map((l) => (
            <tr key={l.level} style={l.level === advised ? { fontWeight: 650 } : undefined}>
              <td style={{ whiteSpace: 'nowrap' }}>
                {l.level}
                {l.level === advised && <span className="visually-hidden"> (advised)</span>}
              </td>
              <td className="num">{kelvin(l.kelvin)}</td>
              <td className="quiet small">
                {l.kelvin >= 0.5 && partName(l.part)}
                {l.provenJobs >= 2 && ` × ${l.provenShare.toFixed(2)} (${count(l.provenJobs, 'job')})`}
              </td>
              <td className="num quiet">{minutes(l.minutes)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
