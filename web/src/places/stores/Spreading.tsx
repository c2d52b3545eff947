import { t } from '@lingui/core/macro';
import { useQuery } from '@tanstack/react-query';
import { Button, Radio, Slider } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { api, unwrap, type Schemas } from '../../api/client';
import { Refusal } from '../../ui/Refusal';
import { tenths, whole } from '../../words/format';
import { PATTERNS } from '../../words/work';

type Pattern = Schemas['PastePattern'];
type Frame = Schemas['SpreadFrameAnswer'];

/** A picture lasts so long when it is played, ms. */
const PICTURE = 90;

/** How a dot, a line, a cross or a spread flows under the cooler, picture by picture. */
export function Spreading({
  chip,
  volumeMm3,
  viscosity,
}: {
  chip: { width: number; height: number };
  volumeMm3: number | null;
  viscosity: Schemas['Viscosity'];
}) {
  const [pattern, setPattern] = useState<Pattern>('dot');
  const [at, setAt] = useState(0);
  const [playing, setPlaying] = useState(false);
  const body = {
    chipWidthMm: chip.width,
    chipHeightMm: chip.height,
    pattern,
    volumeMm3,
    viscosity,
    newtons: null,
    leastMicrometres: null,
    frames: null,
  };
  const spread = useQuery({
    queryKey: ['spread', body],
    queryFn: () => unwrap(api.POST('/api/v1/materials/spread', { body })),
    enabled: volumeMm3 !== null,
    staleTime: Infinity,
    retry: false,
  });
  const frames = spread.data?.frames ?? [];
  const last = frames.length - 1;
  useEffect(() => {
    if (!playing) return;
    const timer = setInterval(() => setAt((i) => Math.min(i + 1, last)), PICTURE);
    return () => clearInterval(timer);
  }, [playing, last]);
  const shown = Math.max(0, Math.min(at, last));
  const frame = frames[shown];
  return (
    <section className="page-end" aria-label={t`How it spreads`}>
      <h2 className="next-heading">{t`How it spreads under the cooler`}</h2>
      <div className="button-row before-more">
        <Radio.Group
          aria-label={t`Laid on as`}
          optionType="button"
          buttonStyle="solid"
          value={pattern}
          onChange={(e) => {
            setPattern(e.target.value as Pattern);
            setAt(0);
          }}
          options={Object.entries(PATTERNS).map(([value, label]) => ({ value, label }))}
        />
        <Button
          disabled={last < 1}
          onClick={() => {
            if (shown === last) setAt(0);
            setPlaying(!playing || shown === last);
          }}
        >
          {playing && shown < last ? t`Hold` : t`Press it down`}
        </Button>
      </div>
      {spread.isError && <Refusal error={spread.error} />}
      {frame && spread.data && (
        <div className="stores-spread">
          <Chip frame={frame} cells={spread.data.cells} chip={chip} />
          <div>
            <p className="stores-answer" role="status">
              {t`After ${seconds(frame.seconds)}: ${whole(frame.coverage * 100)} % covered, ${whole(frame.gapMicrometres)} µm thick, ${whole(frame.squeezedOut * 100)} % squeezed out.`}
            </p>
            <Slider
              ariaLabelForHandle={t`Picture`}
              min={0}
              max={last}
              value={shown}
              onChange={(i) => {
                setPlaying(false);
                setAt(i);
              }}
              tooltip={{ open: false }}
            />
            <p className="quiet small text-width">
              {t`A liquid as stiff as such paste usually is, pressed with 150 N down to the 30 µm of its grains. Real paste gets thinner as it flows and beds in over days; air it encloses is taken to escape. Use it to compare patterns, not to time them.`}
            </p>
          </div>
        </div>
      )}
    </section>
  );
}

const seconds = (s: number): string => (s < 10 ? t`${tenths(s)} s` : t`${whole(s)} s`);

/** The chip from above, the paste as dark as a cell is full. */
function Chip({
  frame,
  cells,
  chip,
}: {
  frame: Frame;
  cells: number;
  chip: { width: number; height: number };
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const fill = Uint8Array.from(atob(frame.fill), (c) => c.charCodeAt(0));
    const picture = context.createImageData(2 * cells, 2 * cells);
    // Ink of the look, in both variants readable on its panel.
    const [r, g, b] = inkOf(canvas.current!);
    for (let y = 0; y < 2 * cells; y++)
      for (let x = 0; x < 2 * cells; x++) {
        // The quarter is told from the middle outwards; the others mirror it.
        const [qx, qy] = [x < cells ? cells - 1 - x : x - cells, y < cells ? cells - 1 - y : y - cells];
        picture.data.set([r, g, b, fill[qy * cells + qx]! * 0.75], 4 * (y * 2 * cells + x));
      }
    context.putImageData(picture, 0, 0);
  }, [frame, cells]);
  return (
    <canvas
      ref={canvas}
      className="stores-chip"
      width={2 * cells}
      height={2 * cells}
      style={{ aspectRatio: `${String(chip.width)} / ${String(chip.height)}` }}
      role="img"
      aria-label={t`The chip from above: ${whole(frame.coverage * 100)} % covered`}
    />
  );
}

function inkOf(element: Element): [number, number, number] {
  const [r, g, b] = (getComputedStyle(element).color.match(/\d+/g) ?? ['0', '0', '0']).map(Number);
  return [r!, g!, b!];
}
