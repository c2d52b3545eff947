import type { Plugin } from 'vite';

/**
 * Loads the first page in two chunks instead of thirty: what starts the program and learns its language, and the page itself,
 * which runs only when its language is known. The second is announced in `index.html`; without this the browser would learn
 * of it one round trip later.
 * @param page path of the page's module, from the folder of the front end
 */
export function firstPage(page: string): Plugin {
  const ofPage = reachedFrom(`${import.meta.dirname}/${page}`);
  return {
    name: 'first-page',
    config: () => ({
      build: {
        rolldownOptions: {
          output: {
            codeSplitting: {
              groups: [
                { name: 'start', tags: ['$initial'], priority: 1 },
                { name: (id, graph) => (ofPage(graph).has(id) ? 'first-page' : null) },
              ],
            },
          },
        },
      },
    }),
    transformIndexHtml: {
      order: 'post',
      handler: (html, { bundle }) =>
        Object.keys(bundle ?? {})
          .filter((file) => /first-page.*\.js$/.test(file) && !html.includes(file))
          .map((file) => ({
            tag: 'link',
            attrs: { rel: 'modulepreload', crossorigin: true, href: `/${file}` },
            injectTo: 'head',
          })),
    },
  };
}

interface Graph {
  getModuleInfo(id: string): { importedIds: readonly string[]; code: string | null } | null;
}

/** The index of the component library imports all of it: what a page takes from there stands in the page's own import. */
const LIBRARY = /\/antd\/es\/index\.js$/;

/** All modules that one module cannot run without. */
function reachedFrom(root: string): (graph: Graph) => ReadonlySet<string> {
  let seen: Set<string> | null = null;
  return (graph) => {
    if (seen) return seen;
    seen = new Set([root]);
    for (const id of seen) {
      const module = graph.getModuleInfo(id);
      for (const next of module?.importedIds ?? [])
        if (!LIBRARY.test(next)) seen.add(next);
        else
          for (const part of partsTaken(module?.code ?? ''))
            seen.add(next.replace('index.js', `${part}/index.js`));
    }
    return seen;
  };
}

/** `import { Button, InputNumber } from 'antd'`: `button`, `input-number`. */
function partsTaken(code: string): string[] {
  return [...code.matchAll(/import\s*\{([^}]*)\}\s*from\s*["']antd["']/g)].flatMap(([, names]) =>
    names!.split(',').map((name) =>
      name
        .trim()
        .replace(/ as .*/, '')
        .replace(/(?!^)([A-Z])/g, '-$1')
        .toLowerCase(),
    ),
  );
}
