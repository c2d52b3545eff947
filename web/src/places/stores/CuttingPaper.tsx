import { t } from '@lingui/core/macro';
import '../../ui/paper/paper.css';
import '../../ui/work.css';
import { SheetHead } from '../../ui/paper/SheetHead';
import { Unready } from '../../ui/Unready';
import { usePageTitle } from '../../ui/usePageTitle';
import { Legend } from './Cutting';
import { letters, SheetDrawing, sheetWords } from './SheetDrawing';
import { useCutFor, useCutting } from './useCutting';
import './stores.css';

/** The plan of cuts on paper, as large as the sheets are: laid under a sheet it is the template. */
export function CuttingPaper() {
  usePageTitle(t`Cutting plan`);
  const { assets, kerfMm, search } = useCutFor();
  const cutting = useCutting(assets, kerfMm);
  if (!cutting.data) return <Unready of={[cutting]} title={t`Cutting plan`} />;
  const { sheets } = cutting.data;
  return (
    <div className="sheet">
      <SheetHead
        place={`/stores?${search}`}
        back={t`Back to the stores`}
        code={t`QR code of the stores`}
        title={t`Cutting plan`}
      >
        <p>{t`Print at 100 %, not fitted to the page, and measure the line below with a rule before you cut.`}</p>
        <svg className="stores-rule" viewBox="0 0 100 4" role="img" aria-label={t`A line of 100 mm`}>
          <path d="M0 0V4M0 2H100M100 0V4M50 1V3" />
        </svg>
        <Legend plan={cutting.data} />
      </SheetHead>
      {sheets.length === 0 && <p>{t`No job ahead needs new pads.`}</p>}
      {sheets.map((s, i) => (
        <section key={`${String(s.lot)} ${String(i)}`} className="stores-paper">
          <p>{sheetWords(s)}</p>
          <SheetDrawing sheet={s} names={letters(sheets)} trueSize />
        </section>
      ))}
    </div>
  );
}
