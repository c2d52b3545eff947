/** Where labels stand so that none covers another: each at its value, or a line below the one above it. */
export function spread(labels: readonly { part: string; at: number }[], apart = 14): Map<string, number> {
  const placed = new Map<string, number>();
  let above = -Infinity;
  for (const { part, at } of [...labels].sort((a, b) => a.at - b.at)) {
    above = Math.max(at, above + apart);
    placed.set(part, above);
  }
  return placed;
}
