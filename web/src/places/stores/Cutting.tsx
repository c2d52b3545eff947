import { plural, t } from '@lingui/core/macro';
import { Button, Select } from 'antd';
import { useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, unwrap, type Schemas } from '../../api/client';
import { useWrite } from '../../api/queries';
import { CUTTING_KEY } from '../../api/stores';
import { NumberField } from '../../ui/NumberField';
import { Refusal } from '../../ui/Refusal';
import { listed } from '../../words/format';
import { say } from '../../words/message';
import { letters, SheetDrawing, sheetWords } from './SheetDrawing';
import { useCutFor, useCutting } from './useCutting';

/** How the pads of all jobs ahead are cut from the sheets and off-cuts on the shelf. */
export function Cutting({
  ahead,
  readyFor,
}: {
  ahead: readonly Schemas['JobAheadAnswer'][];
  readyFor: readonly string[];
}) {
  const { assets, kerfMm, search, change } = useCutFor();
  const cutting = useCutting(assets, kerfMm);
  const client = useQueryClient();
  const book = useWrite(async (id: string) => {
    await unwrap(api.POST('/api/v1/stores/cutting/{id}/book', { params: { path: { id } } }));
    await client.resetQueries({ queryKey: CUTTING_KEY });
  });
  const plan = cutting.data;
  const withPads = ahead
    .filter((j) => [...j.takes, ...j.missing].some((n) => n.kind === 'pads'))
    .map((j) => j.asset);
  return (
    <section aria-label={t`Cutting`}>
      <h2 className="stores-head">{t`Cutting`}</h2>
      <div className="stores-ask">
        <label>
          {t`Cut for`}
          <Select
            mode="multiple"
            aria-label={t`Cut for`}
            placeholder={t`all jobs ahead`}
            value={[...assets]}
            onChange={(tags: string[]) => change({ assets: tags })}
            options={withPads.map((tag) => ({ value: tag, label: tag }))}
          />
        </label>
        <label>
          {t`The knife takes, mm`}
          <NumberField
            aria-label={t`The knife takes, mm`}
            min={0}
            max={5}
            step={0.1}
            value={kerfMm}
            onChange={(kerf) => change({ kerfMm: kerf ?? 0 })}
          />
        </label>
      </div>
      {cutting.isError && <Refusal error={cutting.error} />}
      {book.isError && <Refusal error={book.error} />}
      {cutting.isFetching && <p role="status">{t`The cuts are being planned …`}</p>}
      {plan && (
        <>
          <p>{summary(plan)}</p>
          <div className="stores-sheets">
            {plan.sheets.map((s, i) => (
              <figure key={`${String(s.lot)} ${String(i)}`}>
                <SheetDrawing sheet={s} names={letters(plan.sheets)} />
                <figcaption className="quiet small">{sheetWords(s)}</figcaption>
              </figure>
            ))}
          </div>
          <Legend plan={plan} />
          {plan.left.map((l) => (
            <p key={`${l.name} ${l.code}`} className="text-width">
              <strong>{t`${plural(l.count, { one: '# pad', other: '# pads' })} for ${l.name} cannot be cut.`}</strong>{' '}
              {say(l.message)}
            </p>
          ))}
          {plan.begun.length > 0 && (
            <p className="quiet small text-width">
              {t`Part of a sheet is left of lot ${plan.begun.join(', ')}; nobody noted its shape. Count the lot down and put the rest in as an off-cut with its size, and it is planned with.`}
            </p>
          )}
          <div className="button-row">
            {plan.sheets.length > 0 && (
              <>
                <Link to={`/stores/cutting?${search}`}>
                  <Button>{t`Print 1 : 1`}</Button>
                </Link>
                <Button loading={book.isPending} onClick={() => book.mutate(plan.id)}>
                  {t`Cut: book it`}
                </Button>
              </>
            )}
            <Button type="text" onClick={() => void cutting.refetch()}>
              {t`Plan anew`}
            </Button>
          </div>
          {plan.sheets.length > 0 && (
            <p className="quiet small text-width">
              {t`Booked, the sheets leave the shelf, the off-cuts come onto it, and the pads lie ready: the machine’s next job takes none.`}
            </p>
          )}
        </>
      )}
      {readyFor.length > 0 && <p>{t`Pads lie ready for ${listed([...readyFor])}.`}</p>}
    </section>
  );
}

function summary(plan: Schemas['CuttingAnswer']): string {
  if (plan.pads === 0)
    return plan.left.length > 0
      ? t`Nothing can be cut from what is on the shelf.`
      : t`No job ahead needs new pads.`;
  const sheets = plan.sheets.length;
  const offCuts = plan.sheets.reduce((sum, s) => sum + s.offCuts.length, 0);
  const bound =
    sheets <= plan.lowerBoundSheets ? t`fewer cannot do` : t`${plan.lowerBoundSheets} at least are needed`;
  return t`${plural(plan.pads, { one: '# pad', other: '# pads' })} from ${plural(sheets, { one: '# sheet', other: '# sheets' })}; ${bound}. Off-cuts that go back to the shelf: ${offCuts}. Every cut goes from edge to edge, in the order of the numbers.`;
}

/** Which letter is which machine. */
export function Legend({ plan }: { plan: Schemas['CuttingAnswer'] }) {
  return (
    <p className="quiet small">
      {[...letters(plan.sheets)].map(([asset, letter]) => `${letter} ${asset}`).join(' · ')}
    </p>
  );
}
