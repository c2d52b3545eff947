/** Rows of the queue that are asked for first, so that a large house sees its most pressing machines at once. */
export const FIRST_ROWS = { limit: '60', wait: '0.3' };

let asked: Promise<Response> | null = null;

/** Asks for the first rows while the program that will show them is still being read. */
export function askForRows(): void {
  asked = fetch(`/api/v1/queue?${new URLSearchParams(FIRST_ROWS).toString()}`);
  // Whoever takes the answer learns of its failure.
  asked.catch(() => undefined);
}

/** The answer that was asked for early, once; afterwards the server is asked. */
export async function rowsOrAsk(request: Request): Promise<Response> {
  const early = asked;
  asked = null;
  return (await early) ?? (await fetch(request));
}
