/** The one ramp of colour: from unlit through ember to bright, by the kelvins lost against the fresh machine. */
const STOPS: readonly (readonly [kelvinLost: number, colour: readonly [number, number, number]])[] = [
  [2, [0x8c, 0x83, 0x78]],
  [6, [0x8f, 0x3a, 0x26]],
  [9, [0xc8, 0x40, 0x1c]],
  [12, [0xe8, 0x78, 0x1e]],
  [15, [0xf6, 0xb7, 0x3c]],
];

/** Steps of the ramp for areas with words in them: from so many kelvins lost on, with letters that can be read on each. */
export const HEAT_STEPS: readonly { kelvin: number; colour: string; text: string }[] = [
  { kelvin: 3, colour: '#b9b0a3', text: '#2a2622' },
  { kelvin: 6, colour: '#8f3a26', text: '#fbf9f6' },
  { kelvin: 9, colour: '#c8401c', text: '#fbf9f6' },
  { kelvin: 12, colour: '#e8781e', text: '#2a2622' },
  { kelvin: 15, colour: '#f6b73c', text: '#2a2622' },
];

/** The step for kelvins lost; undefined where nothing notable is lost. */
export const heatStep = (kelvinLost: number) => HEAT_STEPS.findLast((s) => kelvinLost >= s.kelvin);

/**
 * The colour of heat. A machine that is warm by nature and has lost nothing stays unlit; one at its limit is brightest.
 * @param kelvinLost Against the fresh machine.
 * @param kelvinLeft To the limit.
 */
export function heat(kelvinLost: number, kelvinLeft = Infinity): string {
  const first = STOPS[0]!;
  const last = STOPS[STOPS.length - 1]!;
  if (kelvinLeft <= 0 || kelvinLost >= last[0]) return css(last[1]);
  for (let i = 1; i < STOPS.length; i++) {
    const [far, to] = STOPS[i]!;
    const [near, from] = STOPS[i - 1]!;
    if (kelvinLost > near && kelvinLost <= far) {
      const share = (kelvinLost - near) / (far - near);
      return css([0, 1, 2].map((c) => from[c]! + share * (to[c]! - from[c]!)));
    }
  }
  return css(first[1]);
}

function css(colour: readonly number[]): string {
  return `rgb(${colour.map((c) => Math.round(c)).join(' ')})`;
}
