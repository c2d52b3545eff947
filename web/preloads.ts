import type { Plugin } from 'vite';

/**
 * Names the chunks of the first page in `index.html`. The page is loaded only when its language is known; without this the
 * browser would learn of it, and of what it imports, one round trip later.
 * @param page name of the chunk that `main.tsx` loads
 */
export function preloads(page: string): Plugin {
  return {
    name: 'preloads',
    transformIndexHtml: {
      order: 'post',
      handler(html, { bundle }) {
        const chunks = Object.values(bundle ?? {}).filter((file) => file.type === 'chunk');
        const needed = new Set<string>();
        const need = (fileName: string) => {
          if (needed.has(fileName)) return;
          needed.add(fileName);
          chunks.find((chunk) => chunk.fileName === fileName)?.imports.forEach(need);
        };
        chunks.filter((chunk) => chunk.name === page).forEach((chunk) => need(chunk.fileName));
        return [...needed]
          .filter((fileName) => !html.includes(fileName))
          .map((fileName) => ({
            tag: 'link',
            attrs: { rel: 'modulepreload', crossorigin: true, href: `/${fileName}` },
            injectTo: 'head',
          }));
      },
    },
  };
}
