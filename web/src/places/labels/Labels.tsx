import { plural, t } from '@lingui/core/macro';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { useMachines } from '../../api/queries';
import { codeOf } from '../../ui/paper/SheetHead';
import { usePageTitle } from '../../ui/usePageTitle';
import '../../ui/work.css';
import '../../ui/paper/paper.css';
import { Unready } from '../../ui/Unready';

/** A sheet of A4 holds so many labels of 63.5 × 38.1 mm. */
const PER_SHEET = 21;

/** Asset labels on a label sheet: the tag and a QR code that opens the machine, or the job in hand on it. */
export function Labels() {
  usePageTitle(t`Labels`);
  const machines = useMachines();
  const [params] = useSearchParams();
  const [zone, setZone] = useState<string | null>(null);
  const [chosen, setChosen] = useState<string[]>(params.getAll('asset'));
  if (!machines.data) return <Unready of={[machines]} title={t`Labels for machines.`} />;
  const inUse = machines.data.filter((m) => m.retiredOn === null);
  const zones = [...new Set(inUse.map((m) => m.zone))].sort();
  const shown = inUse.filter((m) =>
    chosen.length > 0 ? chosen.includes(m.tag) : zone !== null && m.zone === zone,
  );
  return (
    <div className="sheet">
      <div className="no-print">
        <h1>{t`Labels for machines.`}</h1>
        <p className="quiet">
          {t`21 to a sheet of A4, 63.5 × 38.1 mm each. Scanned with a phone or a hand scanner, a label opens its machine, or the job in hand on it.`}
        </p>
        <div className="bench-more">
          <Select
            aria-label={t`Zone`}
            placeholder={t`a whole zone`}
            value={zone}
            onChange={(z) => {
              setZone(z);
              setChosen([]);
            }}
            options={zones.map((z) => ({ value: z, label: z }))}
            style={{ minWidth: 160 }}
          />
          <Select
            mode="multiple"
            aria-label={t`Machines`}
            placeholder={t`or single machines`}
            value={chosen}
            onChange={setChosen}
            options={inUse.map((m) => ({ value: m.tag, label: m.tag }))}
            style={{ minWidth: 260, flex: 1 }}
          />
          <Button type="primary" disabled={shown.length === 0} onClick={() => window.print()}>
            {shown.length === 0
              ? t`Print`
              : t`Print ${plural(shown.length, { one: '# label', other: '# labels' })} on ${plural(Math.max(1, Math.ceil(shown.length / PER_SHEET)), { one: '# sheet', other: '# sheets' })}`}
          </Button>
        </div>
      </div>
      <div className="label-sheet">
        {shown.map((m) => (
          <div key={m.tag}>
            <img src={codeOf(`/machines/${encodeURIComponent(m.tag)}`)} alt={t`QR code of ${m.tag}`} />
            <div>
              <strong className="figures lead">{m.tag}</strong>
              <div>{m.model}</div>
            </div>
          </div>
        ))}
      </div>
    </div>
  );
}
