import { t } from '@lingui/core/macro';
import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../../api/client';
import { AskReason } from '../../../ui/AskReason';
import { ModelPlan } from '../../../ui/ModelPlan';
import type { BenchJob } from '../useBenchJob';
import { countsOf } from './counts';
import { NumberField } from '../../../ui/NumberField';
import { SCREW_PLACES } from '../../../words/work';

type Count = Schemas['JobCount'];

/** Screws on their tray, or connectors: out one by one, in one by one, and the two must meet. */
export function Counting({
  job,
  write,
  what,
  going,
}: BenchJob & { what: Schemas['CountOf']; going: 'out' | 'in' }) {
  /** The place that is excused, '' for all of them, null while nothing is. */
  const [excuse, setExcuse] = useState<string | null>(null);
  const { known, items, of, out, back, open, nothing, listed } = countsOf(job, what, going);
  const set = (count: Count) => void write({ kind: 'counted', ...count });
  const move = (item: string, by: number) => {
    const count = of(item);
    set({ ...count, [going]: count[going] + by });
  };
  const all = async () => {
    for (const c of listed) await write({ kind: 'counted', ...c });
  };
  return (
    <section aria-label={what === 'screws' ? t`Screw tray` : t`Connectors`}>
      {what === 'screws' && job.notes.screws.length > 0 && (
        <ModelPlan notes={job.notes} show="screws" order={[]} />
      )}
      <div className="tray">
        {items.map((item) => {
          const count = of(item);
          const goal = going === 'out' ? known[item] : count.out;
          return (
            <div key={item} className="tray-place">
              <div className="tray-name">
                {what === 'screws' && <ScrewDrawing lengthMm={Number.parseFloat(item)} />} {item}
              </div>
              <div className="tray-count">
                <Button
                  aria-label={t`One ${item} less`}
                  disabled={count[going] === 0}
                  onClick={() => move(item, -1)}
                >
                  −
                </Button>
                <span className="figures" aria-label={`${item}: ${String(count[going])} ${going}`}>
                  {count[going]}
                  {goal !== undefined && <span className="quiet"> / {goal}</span>}
                </span>
                <Button
                  aria-label={t`One ${item} more`}
                  disabled={going === 'in' && count.in >= count.out}
                  onClick={() => move(item, 1)}
                >
                  +
                </Button>
                {goal !== undefined && goal > count[going] && (
                  <Button onClick={() => set({ ...count, [going]: goal })}>{t`all ${goal}`}</Button>
                )}
              </div>
            </div>
          );
        })}
        {going === 'out' && (
          <NewPlace what={what} onAdd={(item, place) => set({ what, item, out: 1, in: 0, place })} />
        )}
      </div>
      <p role="status">
        {t`${out} out`}
        {going === 'in' ? t`, ${String(back)} back in` : ''}.
        {going === 'in' && open.length > 0 && t` They must meet before it is closed.`}
        {job.excuses
          .filter((e) => e.what === what)
          .map((e) => (e.item ? t` Excused, ${e.item}: ${e.reason}.` : t` Excused: ${e.reason}.`))}
      </p>
      <div className="bench-more">
        {listed.length > 1 && (
          <Button onClick={() => void all()}>{going === 'out' ? t`All as listed` : t`All back in`}</Button>
        )}
        {(going === 'out' ? out : back) > 0 &&
          open.map((c) => (
            <Button key={c.item} onClick={() => setExcuse(c.item)}>
              {t`${c.item}: ${c[going]} of ${(going === 'out' ? known[c.item] : c.out) ?? 0}, write down why …`}
            </Button>
          ))}
        {nothing && <Button onClick={() => setExcuse('')}>{t`None came out, write down why …`}</Button>}
      </div>
      {excuse !== null && (
        <AskReason
          title={
            excuse === ''
              ? what === 'screws'
                ? t`No screws to count`
                : t`No connectors to count`
              : t`${excuse}: the count does not meet`
          }
          text={
            going === 'in'
              ? t`A screw left inside can short the board: look in the fan, under the board, on the magnet mat first.`
              : t`What did come out is still counted when the machine is closed.`
          }
          busy={false}
          confirm={t`Write down`}
          onClose={() => setExcuse(null)}
          onReason={(reason) => write({ kind: 'count-excused', what, reason, item: excuse || null })}
        />
      )}
    </section>
  );
}

function NewPlace({
  what,
  onAdd,
}: {
  what: Schemas['CountOf'];
  onAdd: (item: string, place: Schemas['ScrewPlace'] | null) => void;
}) {
  const [length, setLength] = useState<number | null>(5);
  const [word, setWord] = useState('');
  const [place, setPlace] = useState<Schemas['ScrewPlace']>('cover');
  const item =
    what === 'screws' ? (length === null ? '' : `${String(length)} mm ${word.trim() || 'PH1'}`) : word.trim();
  return (
    <div className="tray-place">
      <div className="tray-name quiet">{what === 'screws' ? t`Another length` : t`Another connector`}</div>
      <div className="tray-count">
        {what === 'screws' && (
          <NumberField
            aria-label={t`Length, mm`}
            min={0.5}
            max={200}
            step={0.5}
            value={length}
            onChange={setLength}
            suffix="mm"
            style={{ width: 110 }}
          />
        )}
        <Input
          aria-label={what === 'screws' ? t`Bit` : t`Its name`}
          placeholder={what === 'screws' ? 'PH1' : t`fan lead`}
          maxLength={40}
          value={word}
          onChange={(e) => setWord(e.target.value)}
        />
        {what === 'screws' && (
          <Select
            aria-label={t`Where they sit`}
            value={place}
            onChange={setPlace}
            style={{ width: 110 }}
            options={Object.entries(SCREW_PLACES).map(([value, label]) => ({
              value: value as Schemas['ScrewPlace'],
              label,
            }))}
          />
        )}
        <Button
          disabled={item === ''}
          onClick={() => {
            onAdd(item, what === 'screws' ? place : null);
            setWord('');
          }}
        >
          {t`Add`}
        </Button>
      </div>
    </div>
  );
}

/** A screw at about its own size: lengths are told apart by eye. */
function ScrewDrawing({ lengthMm }: { lengthMm: number }) {
  const length = Number.isFinite(lengthMm) ? Math.min(26, Math.max(3, lengthMm)) * 2.4 : 12;
  return (
    <svg
      width={length + 10}
      height={12}
      viewBox={`0 0 ${String(length + 10)} 12`}
      aria-hidden="true"
      className="mid"
    >
      <path d="M1 2H5V10H1Z" fill="var(--ink)" />
      <path
        d={`M5 4H${String(length + 4)}L${String(length + 8)} 6L${String(length + 4)} 8H5Z`}
        fill="var(--stone)"
        stroke="var(--ink)"
      />
    </svg>
  );
}
