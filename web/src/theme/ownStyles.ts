/**
 * Gives the styles that our own code lays into the page the word by which the server lets them in (Content Security Policy, nonce).
 * Some parts of Ant Design make theirs without asking for it, so it is given where an element is made; other people's code cannot
 * run here at all.
 */
export function letOwnStylesIn(): void {
  const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce;
  if (!nonce) return;
  // The overload for any name is called deprecated; it is the one that all others are made of.
  /* eslint-disable @typescript-eslint/no-deprecated */
  const make = document.createElement.bind(document);
  document.createElement = (tag: string, options?: ElementCreationOptions) => {
    const element = make(tag, options);
    if (element instanceof HTMLStyleElement) element.nonce = nonce;
    return element;
  };
  /* eslint-enable @typescript-eslint/no-deprecated */
}
