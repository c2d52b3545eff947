/** The one ramp of colour: from unlit through ember to bright, by the kelvins left to a limit. */
const STOPS: readonly (readonly [kelvinLeft: number, colour: readonly [number, number, number]])[] = [
  [30, [0x8c, 0x83, 0x78]],
  [18, [0x8f, 0x3a, 0x26]],
  [9, [0xc8, 0x40, 0x1c]],
  [3, [0xe8, 0x78, 0x1e]],
  [-3, [0xf6, 0xb7, 0x3c]],
];

/** The colour of heat for the kelvins left to the limit; a machine far from it does not glow. */
export function heat(kelvinLeft: number): string {
  const first = STOPS[0]!;
  const last = STOPS[STOPS.length - 1]!;
  if (kelvinLeft >= first[0]) return css(first[1]);
  if (kelvinLeft <= last[0]) return css(last[1]);
  for (let i = 1; i < STOPS.length; i++) {
    const [near, to] = STOPS[i]!;
    const [far, from] = STOPS[i - 1]!;
    if (kelvinLeft >= near) {
      const share = (far - kelvinLeft) / (far - near);
      return css([0, 1, 2].map((c) => from[c]! + share * (to[c]! - from[c]!)));
    }
  }
  return css(last[1]);
}

function css(colour: readonly number[]): string {
  return `rgb(${colour.map((c) => Math.round(c)).join(' ')})`;
}
