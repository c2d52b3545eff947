import { t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { PlainTable } from '../../ui/PlainTable';
import { kelvin } from '../../words/format';
import { say } from '../../words/message';

const WHAT: Record<Schemas['Explaining'], string> = {
  room: t`The room`,
  settings: t`Settings or workload`,
  sensor: t`A sensor`,
  'group-event': t`Something that happened to all of its model`,
  dust: t`Dust`,
  fan: t`A fan`,
  paste: t`Paste`,
  pads: t`Pads`,
  mount: t`The mount of the cooler`,
  'cooler-limited': t`A cooler that is too small`,
};

const WEIGHED: Record<Schemas['Weighed'], string> = {
  found: t`found`,
  'taken-out': t`taken out: no wear`,
  'ruled-out': t`ruled out`,
  'not-told': t`cannot be told`,
};

/** What else it could be, each with its kelvins and what speaks for or against it. */
export function WhyNot({ alternatives }: { alternatives: readonly Schemas['AlternativeAnswer'][] }) {
  if (alternatives.length === 0) return null;
  return (
    <section className="section" aria-label={t`Why this and nothing else`}>
      <div className="section-head">
        <h2>{t`Why this and nothing else`}</h2>
      </div>
      <PlainTable
        head={
          <>
            <th scope="col">{t`It could be`}</th>
            <th scope="col">{t`It is`}</th>
            <th scope="col" className="num">
              {t`Adds`}
            </th>
            <th scope="col">{t`By what that is known`}</th>
          </>
        }
      >
        {alternatives.map((a) => (
          <tr key={a.what} className={a.weighed === 'found' ? 'why-found' : ''}>
            <th scope="row">{WHAT[a.what]}</th>
            <td>{WEIGHED[a.weighed]}</td>
            <td className="num">{typeof a.kelvin === 'number' ? kelvin(a.kelvin) : '–'}</td>
            <td>{say(a.message)}</td>
          </tr>
        ))}
      </PlainTable>
    </section>
  );
}
