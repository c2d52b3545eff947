/** The kinds of machine as the rules name them, in the order of the rounds' filter. */
export const KINDS = [
  { name: 'graphicsCard', kind: 'graphics-card' },
  { name: 'server', kind: 'server' },
  { name: 'laptop', kind: 'laptop' },
  { name: 'desktop', kind: 'desktop' },
] as const;
