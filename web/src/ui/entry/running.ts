/** Tags that run on from one: the number at its end counts up, with as many digits. */
export function runningTags(first: string, howMany: number): string[] {
  const match = /^(.*?)(\d+)$/.exec(first);
  if (!match)
    return howMany === 1 ? [first] : Array.from({ length: howMany }, (_, i) => `${first}-${String(i + 1)}`);
  const [, stem = '', digits = ''] = match;
  const start = Number(digits);
  return Array.from({ length: howMany }, (_, i) => stem + String(start + i).padStart(digits.length, '0'));
}

/** A cell of a tab-separated table: no tab or line end can stand in it. */
const cell = (value: string | number | null | undefined) =>
  value === null || value === undefined ? '' : String(value).replace(/[\t\r\n]+/g, ' ');

/** Machines as a table for the intake: empty values are left to it. */
export function tableOf(
  tags: readonly string[],
  fields: Record<string, string | number | null | undefined>,
): string {
  const names = Object.keys(fields);
  const header = ['tag', ...names].join('\t');
  return [header, ...tags.map((tag) => [tag, ...names.map((n) => cell(fields[n]))].join('\t'))].join('\n');
}

/** One reading as the readings' form has it; only what was typed. */
export function readingOf(
  asset: string,
  at: string,
  typed: {
    air: number | null;
    power: number | null;
    rpm: number | null;
    parts: Record<string, number | null>;
  },
): string {
  const columns: [string, string][] = [
    ['time', at],
    ['asset', quoted(asset)],
    ['workload', 'under load'],
  ];
  if (typed.air !== null) columns.push(['ambient_c', String(typed.air)]);
  if (typed.power !== null) columns.push(['power_w', String(typed.power)]);
  if (typed.rpm !== null) columns.push(['fan_rpm', String(typed.rpm)]);
  for (const [part, celsius] of Object.entries(typed.parts))
    if (celsius !== null) columns.push([`${part}_c`, String(celsius)]);
  return `${columns.map(([name]) => name).join(',')}\n${columns.map(([, value]) => value).join(',')}\n`;
}

const quoted = (text: string) => (/[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);
