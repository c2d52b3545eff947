import { expect, test } from 'vitest';
import { answerOf, callsOf, found, membersOf, resolved, typeOf, type OpenApi } from './openapi';

const answer = { responses: {} };
const document: OpenApi = {
  info: { description: '' },
  tags: [{ name: 'Queue', description: 'The order of work.' }, { name: 'Bench' }],
  paths: {
    '/api/v1/queue': {
      get: { operationId: 'get-queue', tags: ['Queue'], summary: 'The order of work', ...answer },
    },
    '/api/v1/jobs': {
      get: { operationId: 'get-jobs', tags: ['Bench'], summary: 'The newest jobs', ...answer },
      post: { operationId: 'post-jobs', tags: ['Bench'], summary: 'Begins a job', ...answer },
    },
  },
  components: {
    schemas: {
      Cause: { type: 'string', enum: ['dust', 'paste'] },
      Job: {
        type: 'object',
        description: 'A job.',
        properties: { id: { type: 'integer', format: 'int64' }, next: { $ref: '#/components/schemas/Job' } },
      },
    },
    responses: { missing: { description: 'Not there.' } },
  },
};

test('calls stand in their groups, each with its method and path', () => {
  expect(callsOf(document).map((g) => [g.name, g.calls.map((c) => `${c.method} ${c.path}`)])).toEqual([
    ['Queue', ['GET /api/v1/queue']],
    ['Bench', ['GET /api/v1/jobs', 'POST /api/v1/jobs']],
  ]);
});

test('a search looks for all its words in method, path, summary and group', () => {
  const all = callsOf(document);
  expect(found(all, '')).toHaveLength(2);
  expect(found(all, 'POST job').flatMap((g) => g.calls.map((c) => c.operationId))).toEqual(['post-jobs']);
  expect(found(all, 'bench newest').flatMap((g) => g.calls.map((c) => c.operationId))).toEqual(['get-jobs']);
  expect(found(all, 'nowhere')).toEqual([]);
});

test('a type is told in the words of JSON, null last', () => {
  expect(typeOf(document, { type: ['null', 'string'], format: 'date' })).toBe('string (date) or null');
  expect(typeOf(document, { $ref: '#/components/schemas/Cause' })).toBe('dust | paste');
  expect(typeOf(document, { type: 'array', items: { $ref: '#/components/schemas/Job' } })).toBe(
    'array of Job',
  );
  expect(typeOf(document, { oneOf: [{ type: 'null' }, { $ref: '#/components/schemas/Job' }] })).toBe(
    'null or Job',
  );
  expect(typeOf(document, {})).toBe('object');
});

test('members are those of what is referred to, through arrays and choices', () => {
  const job = { $ref: '#/components/schemas/Job' };
  for (const schema of [job, { type: 'array', items: job }, { oneOf: [{ type: 'null' }, job] }])
    expect(Object.keys(membersOf(document, schema) ?? {})).toEqual(['id', 'next']);
  expect(membersOf(document, { type: 'string' })).toBeNull();
});

test('a word beside a reference is nearer than the one of what it leads to', () => {
  expect(
    resolved(document, { $ref: '#/components/schemas/Job', description: 'The one before.' }).description,
  ).toBe('The one before.');
  expect(resolved(document, { $ref: '#/components/schemas/Job' }).description).toBe('A job.');
  expect(answerOf(document, { $ref: '#/components/responses/missing' }).description).toBe('Not there.');
});
