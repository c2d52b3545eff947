import { readdirSync } from 'node:fs';
import babel from '@lingui/cli/api/extractors/babel';
import { formatter } from '@lingui/format-po';

/**
 * The messages of the server, which `Pyrometron.Bench messages` reads out of its sources: their English is their key, and in
 * ICU message format an apostrophe is doubled.
 */
const server = {
  match: (file) => file.endsWith('server.json'),
  extract: (file, code, found) => {
    for (const { id, message, origin } of JSON.parse(code)) {
      found({ id, message, context: 'server', origin: [origin, 1] });
    }
  },
};

/** One file a language: messages of the front end and of the server. A new language is a copy of `en.po`, translated. */
export default {
  sourceLocale: 'en',
  // Each file is a language.
  locales: readdirSync(new URL('languages', import.meta.url))
    .filter((file) => file.endsWith('.po'))
    .map((file) => file.slice(0, -'.po'.length)),
  catalogs: [
    {
      path: '<rootDir>/languages/{locale}',
      include: ['src', 'languages/server.json'],
      exclude: ['src/**/*.test.*', 'src/api/schema.d.ts'],
    },
  ],
  extractors: [babel.default ?? babel, server],
  format: formatter({ lineNumbers: false, printPlaceholdersInComments: false }),
  orderBy: 'message',
};
