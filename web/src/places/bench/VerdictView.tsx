import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { say } from '../../words/message';
import { PairsTable } from './PairsTable';
import { VerdictBars } from './VerdictBars';

type Verdict = Schemas['VerdictAnswer'];

/** Of verdicts filed before they had a sentence of their own. */
const HEADLINES: Record<Verdict['outcome'], string> = {
  improved: t`Cooler than before.`,
  'no-change': t`No change.`,
  worse: t`Warmer than before.`,
  'not-comparable': t`These runs cannot be compared.`,
};

/** What the job proved: the result, each part's change with its uncertainty, pair by pair, why, and what to do next. */
export function VerdictView({ verdict, small = false }: { verdict: Verdict; small?: boolean }) {
  const headline = (verdict.headlineMessage && say(verdict.headlineMessage)) ?? HEADLINES[verdict.outcome];
  return (
    <section aria-label={t`Verdict`}>
      {small ? (
        <p>
          <strong>{headline}</strong>
        </p>
      ) : (
        <h1>{headline}</h1>
      )}
      {verdict.parts.length > 0 && <VerdictBars parts={verdict.parts} />}
      <PairsTable verdict={verdict} />
      <Sentences title={t`What differs between the runs`} of={verdict.reasons.map((r) => say(r.says))} />
      <Sentences title={t`What to do next`} of={verdict.adviceMessages.map(say)} />
    </section>
  );
}

function Sentences({ title, of }: { title: string; of: readonly string[] }) {
  if (of.length === 0) return null;
  return (
    <>
      <h2>{title}</h2>
      <ul className="verdict-sentences">
        {of.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
    </>
  );
}
