import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { Plugin } from 'vite';

/**
 * Writes down the folders of the packages of which something stands in the built front end. Most of what a front end installs
 * is for building it and never ships, so its lock file does not tell.
 * @param file where they are written, one in a line
 */
export function bundledPackages(file: string): Plugin {
  const folders = new Set<string>();
  return {
    name: 'bundled-packages',
    apply: 'build',
    generateBundle() {
      for (const id of this.getModuleIds()) {
        const folder = packageOf(id);
        if (folder) folders.add(folder);
      }
    },
    closeBundle() {
      mkdirSync(dirname(file), { recursive: true });
      writeFileSync(file, [...folders].sort().join('\n') + '\n');
    },
  };
}

/** The folder of the package that a module is of; null for one of our own and for those that a tool makes up. */
function packageOf(id: string): string | null {
  const path = id.replace(/^\0/, '').replace(/\?.*$/, '');
  const at = path.lastIndexOf('/node_modules/');
  if (at < 0) return null;
  const [first = '', second = ''] = path.slice(at + '/node_modules/'.length).split('/');
  const folder = join(
    path.slice(0, at),
    'node_modules',
    first.startsWith('@') ? `${first}/${second}` : first,
  );
  return existsSync(join(folder, 'package.json')) ? folder : null;
}
