import { plural, t } from '@lingui/core/macro';
import { Slider } from 'antd';
import { useState } from 'react';
import { useHours } from '../../api/queries';
import { PlainTable } from '../../ui/PlainTable';
import { fullDay, tenths } from '../../words/format';
import { at, needed, path, type Curve } from './hours';

const WIDTH = 260,
  HEIGHT = 130,
  LEFT = 28,
  BOTTOM = 22,
  TOP = 8;

/** How many machines pass their line with more or fewer hours of work a week. */
export function HoursCurve() {
  const hours = useHours();
  if (!hours.data || hours.data.machines === 0) return null;
  return <Drawn key={hours.data.hoursAWeek} curve={hours.data} />;
}

function Drawn({ curve }: { curve: Curve }) {
  const last = curve.points[curve.points.length - 1]!;
  const [chosen, setChosen] = useState(Math.min(curve.hoursAWeek, last.hours));
  const most = Math.max(...curve.points.map((p) => p.ifEarly), 1);
  const x = (h: number) => LEFT + (h / last.hours) * (WIDTH - LEFT - 6);
  const y = (n: number) => TOP + (1 - n / most) * (HEIGHT - TOP - BOTTOM);
  const here = at(curve, chosen);
  const enough = needed(curve);
  return (
    <section aria-label={t`Hours a week, and what passes its line`}>
      <h2 className="weeks-side-head apart">{t`Hours a week, and what passes its line`}</h2>
      <p className="small apart-small">
        {t`${plural(curve.machines, { one: '# machine reaches', other: '# machines reach' })} the action line by ${fullDay(curve.until)} if nothing is done; ${curve.past} of them are past it today.`}
      </p>
      <svg
        viewBox={`0 0 ${String(WIDTH)} ${String(HEIGHT)}`}
        width="100%"
        aria-hidden
        className="figures weeks-curve"
      >
        <path d={path(curve.points, (p) => [x(p.hours), y(p.ifEarly)])} className="weeks-band" />
        <path d={path(curve.points, (p) => [x(p.hours), y(p.ifLate)])} className="weeks-band" />
        <path d={path(curve.points, (p) => [x(p.hours), y(p.passing)])} className="weeks-passing" />
        <path
          d={`M${String(LEFT)} ${String(TOP)}V${String(HEIGHT - BOTTOM)}H${String(WIDTH)}`}
          className="weeks-axis"
        />
        {[0, most].map((n) => (
          <text key={n} x={LEFT - 6} y={y(n) + 4} textAnchor="end">
            {n}
          </text>
        ))}
        {[0, last.hours / 2, last.hours].map((h) => (
          <text key={h} x={x(h)} y={HEIGHT - 6} textAnchor={h === last.hours ? 'end' : 'middle'}>
            {h === last.hours ? t`${tenths(h)} h` : tenths(h)}
          </text>
        ))}
        <circle cx={x(chosen)} cy={y(here.passing)} r={4.5} className="weeks-ring" />
      </svg>
      <Slider
        min={0}
        max={last.hours}
        step={last.hours / 10}
        value={chosen}
        onChange={setChosen}
        tooltip={{ open: false }}
        ariaLabelForHandle={t`Hours of work a week`}
        ariaValueTextFormatterForHandle={(value) => t`${tenths(value)} h`}
      />
      <p className="small no-gap" role="status">
        {t`With ${tenths(chosen)} h of work a week ${plural(here.passing, { one: '# passes', other: '# pass' })} it (${here.ifLate} to ${here.ifEarly} by the late and the early ends of their dates).`}{' '}
        {enough !== null && t`More than ${tenths(enough)} h changes nothing.`}
      </p>
      <p className="small quiet">
        {t`Your shifts hold ${tenths(curve.hoursAWeek)} h a week. The fewest that can pass, whatever the order of work; work that only an interval asks for is not in it.`}
      </p>
      <details>
        <summary className="small">{t`As a table`}</summary>
        <PlainTable
          className="small"
          head={
            <>
              <th>{t`Hours a week`}</th>
              <th>{t`Pass`}</th>
              <th>{t`If late`}</th>
              <th>{t`If early`}</th>
            </>
          }
        >
          {curve.points.map((p) => (
            <tr key={p.hours} className="figures">
              <td>{tenths(p.hours)}</td>
              <td>{p.passing}</td>
              <td>{p.ifLate}</td>
              <td>{p.ifEarly}</td>
            </tr>
          ))}
        </PlainTable>
      </details>
    </section>
  );
}
