// Whether en.po says what the sources say; it is left as it was.
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';

const file = new URL('en.po', import.meta.url);
const before = readFileSync(file, 'utf8');
execFileSync('npx', ['lingui', 'extract', '--clean', '--locale', 'en'], { stdio: 'pipe' });
const after = readFileSync(file, 'utf8');
if (after !== before) {
  writeFileSync(file, before);
  console.error('languages/en.po lags behind the texts: run `npm run languages` and commit it.');
  process.exit(1);
}
