import type { Schemas } from '../api/client';
import { celsiusFigure, day, kelvin, MINUS, partName } from './format';

type Message = Schemas['Message'];
type MessageValue = Schemas['MessageValue'];

/** A sentence of the server in the reader's units and numbers. */
export function say(message: Message): string {
  return message.template.replace(/\{(\w+)\}/g, (place, name: string) => {
    const value = message.values.find((v) => v.name === name);
    return value ? told(value) : place;
  });
}

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
      return number === null ? plain : `${kelvin(number)} a month`;
    case 'date':
      return text === null ? plain : day(text);
    case 'part': {
      const name = partName(text ?? plain);
      return /^\p{Lu}/u.test(plain) ? name.charAt(0).toUpperCase() + name.slice(1) : name;
    }
    case 'list':
      return (value.messages ?? []).map(say).join(text ?? '');
    default:
      return number === null ? plain : inNumbers(plain);
  }
}

const decimalsOf = (plain: string): number => /\d\.(\d+)/.exec(plain)?.[1]?.length ?? 0;

/** A plain English figure with its word, its number written as the reader writes it. */
const inNumbers = (plain: string): string =>
  plain.replace(/[+−-]?\d+(?:\.\d+)?/, (figure) => {
    const number = Number(figure.replace(MINUS, '-'));
    const written = number.toLocaleString(undefined, { minimumFractionDigits: decimalsOf(figure) });
    return (figure.startsWith('+') ? '+' : '') + written.replace('-', MINUS);
  });
