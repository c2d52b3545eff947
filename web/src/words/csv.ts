/**
 * A table as CSV (RFC 4180, CRLF, UTF-8). A text that a spreadsheet would take for a formula is led by an apostrophe.
 */
export function csv(
  header: readonly string[],
  rows: readonly (readonly (string | number | null)[])[],
): string {
  return [header, ...rows].map((row) => `${row.map(cell).join(',')}\r\n`).join('');
}

function cell(value: string | number | null): string {
  if (value === null) return '';
  if (typeof value === 'number') return String(value);
  const text = /^[=+@\t\r-]/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

/** Hands a text, or what was made of bytes, to the reader as a file. */
export function download(name: string, text: string | Blob, type = 'text/csv'): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}
