// Writes a language that nobody speaks: every English letter wears an accent and every word is 40 % longer. What a test finds
// without accents was never given to a translator; what is cut would be cut in a real language.
import { readFileSync, writeFileSync } from 'node:fs';
import { formatter } from '@lingui/format-po';
import { parse } from '@messageformat/parser';

const PLAIN = 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ';
const ACCENTED = 'àƀçđéƒǵĥîĵķļɱñöþǫŕšţûṽŵẋýžÀƁÇĐÉƑǴĤÎĴĶĻṀÑÖÞǪŔŠŢÛṼŴẊÝŽ';
const FILL = 'ẋ';

const accented = (word) =>
  [...word].map((c) => (PLAIN.includes(c) ? [...ACCENTED][PLAIN.indexOf(c)] : c)).join('') +
  FILL.repeat(Math.ceil(word.length * 0.4));

/** Text between places and tags, which stay as they are. */
const disguised = (text) =>
  text.replace(/<\/?\d+\/?>|[A-Za-z]+/g, (found) => (found.startsWith('<') ? found : accented(found)));

/** ICU message format again, out of its tokens. */
const written = (tokens) =>
  tokens
    .map((token) => {
      switch (token.type) {
        case 'content':
          return disguised(token.value).replaceAll("'", "''");
        case 'argument':
          return `{${token.arg}}`;
        case 'octothorpe':
          return '#';
        default:
          return `{${token.arg}, ${token.type}, ${token.cases.map((c) => `${c.key} {${written(c.tokens)}}`).join(' ')}}`;
      }
    })
    .join('');

const po = formatter({ lineNumbers: false });
const about = (locale) => ({ locale, sourceLocale: 'en', filename: `${locale}.po`, existing: null });
const english = await po.parse(readFileSync(new URL('en.po', import.meta.url), 'utf8'), about('en'));
const pseudo = Object.fromEntries(
  Object.entries(english).map(([id, message]) => [
    id,
    { ...message, translation: written(parse(message.translation || message.message || id)) },
  ]),
);
writeFileSync(new URL('en-XA.po', import.meta.url), await po.serialize(pseudo, about('en-XA')));
