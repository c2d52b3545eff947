/** The look's own colours: paper, ink and what lies between. Heat is the only other colour (`heat.ts`). */
export type Tokens = {
  paper: string;
  panel: string;
  line: string;
  ink: string;
  quiet: string;
  track: string;
  stone: string;
  shade: string;
  /** Edges of fields and boxes, which must be seen. */
  edge: string;
};

/** By day. */
export const LIGHT: Tokens = {
  paper: '#f1ede6',
  panel: '#fbf9f6',
  line: '#d9d2c7',
  ink: '#2a2622',
  quiet: '#6d655b',
  track: '#dcd5ca',
  stone: '#b9b0a3',
  shade: 'rgb(42 38 34 / 6%)',
  edge: '#8c8378',
};

/** For the night shift. */
export const DARK: Tokens = {
  paper: '#1d1a17',
  panel: '#26221e',
  line: '#453e36',
  ink: '#ece6dc',
  quiet: '#a89f92',
  track: '#3a342d',
  stone: '#6b6258',
  shade: 'rgb(236 230 220 / 8%)',
  edge: '#8c8378',
};

/** Gives the page its colours: the stylesheets know them as custom properties. */
export function paint(dark: boolean): void {
  const root = document.documentElement;
  root.dataset['theme'] = dark ? 'dark' : 'light';
  for (const [name, value] of Object.entries<string>(dark ? DARK : LIGHT))
    root.style.setProperty(`--${name}`, value);
}
