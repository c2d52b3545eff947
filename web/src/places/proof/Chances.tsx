import { plural, t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { PlainTable } from '../../ui/PlainTable';
import { whole } from '../../words/format';

const percent = (share: number): string => `${whole(share * 100)} %`;

/** Whether the chances stated when jobs began have held. */
export function Chances({ chances }: { chances: Schemas['StatedChances'] }) {
  const off = chances.groups.filter((g) => !g.holds);
  return (
    <section className="section">
      <div className="section-head">
        <h2>{t`The chance that was stated, and what was found`}</h2>
      </div>
      <p className="quiet">
        {off.length === 0
          ? t`What was stated and what was found go together as far as ${plural(chances.jobs, { one: '# job', other: '# jobs' })} can tell.`
          : t`What was stated and what was found do not go together everywhere.`}{' '}
        {t`Machines that were left alone are not in it.`}
      </p>
      <ChanceTable groups={chances.groups} stated={t`Stated`} cases={t`Jobs`} came={t`Needed it`} />
    </section>
  );
}

/** Cases by the chance that was stated, with how many came true. */
export function ChanceTable({
  groups,
  stated,
  cases,
  came,
}: {
  groups: readonly Schemas['ChanceGroup'][];
  stated: string;
  cases: string;
  came: string;
}) {
  return (
    <PlainTable
      head={
        <>
          <th scope="col">{stated}</th>
          <th scope="col" className="num">
            {cases}
          </th>
          <th scope="col" className="num">
            {came}
          </th>
          <th scope="col">{t`Share, 95 %`}</th>
          <th scope="col">{t`Holds`}</th>
        </>
      }
    >
      {groups.map((g) => (
        <tr key={g.from}>
          <th scope="row">{t`${percent(g.from)} to ${percent(g.to)}, ${percent(g.stated)} in the mean`}</th>
          <td className="num">{g.cases}</td>
          <td className="num">{g.cameTrue}</td>
          <td>{t`${percent(g.cameTrue / g.cases)} (${percent(g.low)} to ${percent(g.high)})`}</td>
          <td>{g.holds ? t`yes` : g.stated > g.high ? t`no: stated too high` : t`no: stated too low`}</td>
        </tr>
      ))}
    </PlainTable>
  );
}
