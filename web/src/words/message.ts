import { plural, t } from '@lingui/core/macro';
import { ProblemError, type Schemas } from '../api/client';
import { celsiusFigure, day, kelvin, MINUS, partName, whole } from './format';
import { translated, word } from './word';

type Message = Schemas['Message'];
type MessageValue = Schemas['MessageValue'];

/** A sentence of the server in the reader's language, units and numbers. */
export function say(message: Message): string {
  const values = new Map(message.values.map((v) => [v.name, told(v)]));
  // Its English is its key in the languages; in their format an apostrophe is doubled.
  return (
    translated(message.template.replaceAll("'", "''"), Object.fromEntries(values)) ??
    message.template.replace(/\{(\w+)\}/g, (place, name: string) => values.get(name) ?? place)
  );
}

/** Why something could not be done: what the server says, in the reader's language where it has one for it. */
export const refusal = (error: Error): string =>
  error instanceof ProblemError && error.problem.says ? say(error.problem.says) : error.message;

/** Sentences one after the other; those that are null are left out. */
export const sayAll = (...messages: readonly (Message | null | undefined)[]): string =>
  messages.flatMap((m) => (m ? [say(m)] : [])).join(' ');

function told(value: MessageValue): string {
  const { number, text, plain } = value;
  switch (value.unit) {
    case 'kelvin':
      return number === null ? plain : (plain.startsWith('+') && number > 0 ? '+' : '') + kelvin(number);
    case 'celsius':
      return number === null ? plain : celsiusFigure(number, decimalsOf(plain));
    case 'kelvin-per-month':
      return number === null ? plain : t`${kelvin(number)} a month`;
    case 'date':
      return text === null ? plain : day(text);
    case 'part': {
      const name = partName(text ?? plain);
      return /^\p{Lu}/u.test(plain) ? name.charAt(0).toUpperCase() + name.slice(1) : name;
    }
    case 'word':
      return word(text ?? plain);
    case 'minutes':
      return number === null ? plain : plural(figure(number), { one: '# minute', other: '# minutes' });
    case 'seconds':
      return number === null ? plain : plural(number, { one: '# second', other: '# seconds' });
    case 'count':
      // What is counted, by its English noun.
      return number === null || !text ? inNumbers(plain) : counted(number, text);
    case 'number':
      return number === null ? plain : inFigures(number, plain);
    case 'list':
      return (value.messages ?? []).map(say).join(text === null ? '' : (translated(text) ?? text));
    default:
      return number === null ? plain : inNumbers(plain);
  }
}

const counted = (n: number, noun: string): string =>
  translated(`# ${noun}`, { n }) ?? `${whole(n)} ${noun}${n === 1 ? '' : 's'}`;

/** To a tenth: what stands behind it is not said. */
const figure = (number: number): number => Math.round(number * 10) / 10;

/** What is to be confirmed at a step; an answer kept from before an update has it in plain English alone. */
export function gateWords(
  step: Pick<Schemas['StepAnswer'], 'gate'> & Partial<Schemas['StepAnswer']>,
  i: number,
): string {
  const message = step.gateMessages?.[i];
  return message ? say(message) : step.gate[i]!;
}

const decimalsOf = (plain: string): number => /\d\.(\d+)/.exec(plain)?.[1]?.length ?? 0;

/** A number as the reader writes it, with the decimals that the plain English has; thousands are parted where it parts them. */
const inFigures = (number: number, plain: string): string =>
  number
    .toLocaleString(undefined, {
      minimumFractionDigits: decimalsOf(plain),
      maximumFractionDigits: decimalsOf(plain),
      useGrouping: plain.includes(','),
    })
    .replace('-', MINUS);

/** A plain English figure with its word, its number written as the reader writes it. */
const inNumbers = (plain: string): string =>
  plain.replace(/[+−-]?\d+(?:\.\d+)?/, (figure) => {
    const number = Number(figure.replace(MINUS, '-'));
    const written = number.toLocaleString(undefined, { minimumFractionDigits: decimalsOf(figure) });
    return (figure.startsWith('+') ? '+' : '') + written.replace('-', MINUS);
  });
