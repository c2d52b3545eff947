import { t } from '@lingui/core/macro';
import { useJobCost } from '../../../api/stores';
import { kelvin, minutes, money, whole } from '../../../words/format';
import type { BenchJob } from '../useBenchJob';

/** What the job cost, beside what it won. */
export function Cost({ job }: Pick<BenchJob, 'job'>) {
  const cost = useJobCost(job.id);
  if (!cost.data) return null;
  const c = cost.data;
  const price = (value: number) => money(value, c.currency);
  return (
    <section className="section" aria-label={t`What it cost`}>
      <div className="section-head">
        <h2>{t`What it cost`}</h2>
      </div>
      <p className="no-gap">
        {t`${wonWords(job) ?? t`The job`} for ${price(c.material)} of material and ${minutes(Math.round(c.minutes))}: ${price(c.all)} with work (${price(c.work)}) and downtime (${price(c.downtime)}).`}
      </p>
      <p className="quiet small">
        {c.materialKnown
          ? t`Material by the prices of the lots it used.`
          : t`Material as such work usually costs: no lot with a price was used.`}
        {c.minutes === 0 && ` ${t`No minutes are booked yet.`}`}
      </p>
    </section>
  );
}

/** What was won, in figures as they were measured. */
function wonWords(job: BenchJob['job']): string | null {
  const verdict = job.verdict ?? job.preview;
  const best = verdict?.parts.reduce<number | null>((most, p) => Math.min(most ?? 0, p.changeKelvin), null);
  const before = job.runs.find((r) => r.phase === 'before' && r.voided === null)?.run.score;
  const after = job.runs.find((r) => r.phase === 'after' && r.voided === null)?.run.score;
  const score =
    before && after && after > before ? t`${whole((100 * (after - before)) / before)} % more score` : null;
  const cooler = verdict?.outcome === 'improved' && best ? t`${kelvin(-best)} won` : null;
  return [cooler, score].filter(Boolean).join(', ') || null;
}
