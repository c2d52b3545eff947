import { api, unwrap, type Schemas } from './client';

/** What was settled by hand: a header or a word, and what it means. */
export type Settled = Readonly<Record<string, string>>;

/** Takes a table of machines, or shows what it would do. */
export function takeTable(
  text: Blob | string,
  map: Settled,
  means: Settled,
  dryRun: boolean,
): Promise<Schemas['TableAnswer']> {
  return unwrap(
    api.POST('/api/v1/fleet/table', {
      params: {
        query: {
          dryRun,
          map: Object.entries(map).map(([header, field]) => `${header}:${field}`),
          means: Object.entries(means).map(([word, meaning]) => `${word}:${meaning}`),
        },
      },
      headers: { 'Content-Type': 'text/csv' },
      body: text as never,
      bodySerializer: (body: unknown) => body as never,
    }),
  );
}
