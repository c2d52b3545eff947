/**
 * A number as people type it: with a decimal point or a decimal comma, whatever the browser's language. With both, the last one
 * is the decimal sign and the other one groups thousands.
 */
export function readDecimal(text: string | undefined): string {
  const plain = (text ?? '').replace(/[^\d.,+-]/g, '').replace(/^\+/, '');
  const at = Math.max(plain.lastIndexOf('.'), plain.lastIndexOf(','));
  return at < 0 ? plain : `${plain.slice(0, at).replace(/[.,]/g, '')}.${plain.slice(at + 1)}`;
}
