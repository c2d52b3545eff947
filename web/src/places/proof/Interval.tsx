const WIDTH = 150;
const HEIGHT = 18;

/** A mean with its uncertainty on a line from zero; the figures stand beside it in words. */
export function Interval({
  mean,
  within,
  from,
  to,
}: {
  mean: number;
  within: number;
  from: number;
  to: number;
}) {
  const x = (kelvin: number) => 4 + ((kelvin - from) / (to - from)) * (WIDTH - 8);
  return (
    <svg width={WIDTH} height={HEIGHT} viewBox={`0 0 ${String(WIDTH)} ${String(HEIGHT)}`} aria-hidden="true">
      <line className="proof-zero" x1={x(0)} x2={x(0)} y1={0} y2={HEIGHT} />
      <line
        className="proof-within"
        x1={x(mean - within)}
        x2={x(mean + within)}
        y1={HEIGHT / 2}
        y2={HEIGHT / 2}
      />
      <rect className="proof-mean" x={x(mean) - 2} y={3} width={4} height={HEIGHT - 6} />
    </svg>
  );
}
