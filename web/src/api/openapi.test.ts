import { createConfig, lint } from '@redocly/openapi-core';
import { expect, test } from 'vitest';

/** As the server's build writes it. */
const DOCUMENT = '../artifacts/openapi/Pyrometron.Server.json';

test('the description of the API holds what a linter for OpenAPI asks', async () => {
  const config = await createConfig({
    extends: ['recommended-strict'],
    rules: {
      // The program has no licence that everybody could name.
      'info-license': 'off',
      'operation-description': 'off',
      'operation-summary': 'error',
      'parameter-description': 'error',
      'tag-description': 'error',
      'operation-singular-tag': 'error',
      'operation-operationId-url-safe': 'error',
      'no-http-verbs-in-paths': 'off',
      'response-contains-header': 'off',
      'no-unresolved-refs': 'error',
      'no-unused-components': 'error',
      // The probes of a supervisor are told by 200 and 503 alone.
      'operation-4xx-response': 'off',
    },
  });
  const problems = await lint({ ref: DOCUMENT, config });
  expect(problems.map((p) => `${p.ruleId}: ${p.message} (${p.location[0]?.pointer ?? ''})`)).toEqual([]);
}, 30_000);

test('every call but the probes says how it may be refused', async () => {
  const { default: document } =
    (await import('../../../artifacts/openapi/Pyrometron.Server.json')) as unknown as {
      default: { paths: Record<string, Record<string, { responses: Record<string, unknown> }>> };
    };
  const silent = Object.entries(document.paths)
    .filter(([path]) => !path.startsWith('/health/'))
    .flatMap(([path, calls]) =>
      Object.entries(calls)
        .filter(([, call]) => !Object.keys(call.responses).some((status) => status.startsWith('4')))
        .map(([method]) => `${method} ${path}`),
    );
  expect(silent).toEqual([]);
});
