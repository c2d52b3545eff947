/** What of an OpenAPI 3.1 document is read here. */
export interface OpenApi {
  info: { description: string };
  tags: { name: string; description?: string }[];
  paths: Record<string, Record<string, Operation>>;
  components: { schemas: Record<string, Schema>; responses: Record<string, Answer> };
}

export interface Operation {
  operationId: string;
  tags: string[];
  summary: string;
  description?: string;
  parameters?: {
    name: string;
    in: string;
    description?: string;
    required?: boolean;
    schema: Schema;
    example?: string | number | boolean;
  }[];
  requestBody?: { required?: boolean; content: Record<string, { schema?: Schema; example?: unknown }> };
  responses: Record<string, Answer>;
}

interface Answer {
  $ref?: string;
  description?: string;
  content?: Record<string, { schema?: Schema }>;
}

export interface Schema {
  $ref?: string;
  type?: string | string[];
  format?: string;
  description?: string;
  enum?: (string | number)[];
  items?: Schema;
  properties?: Record<string, Schema>;
  required?: string[];
  additionalProperties?: Schema | boolean;
  oneOf?: Schema[];
  anyOf?: Schema[];
  pattern?: string;
  minimum?: number;
  maximum?: number;
}

/** A call with where it is. */
export interface Call extends Operation {
  method: string;
  path: string;
}

/** The calls by their groups, in the document's order. */
export function callsOf(document: OpenApi): { name: string; description: string; calls: Call[] }[] {
  const all = Object.entries(document.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, operation]) => ({
      ...operation,
      method: method.toUpperCase(),
      path,
    })),
  );
  return document.tags.map((tag) => ({
    name: tag.name,
    description: tag.description ?? '',
    calls: all.filter((call) => call.tags.includes(tag.name)),
  }));
}

/** The calls in which all words of a search stand: in the path, the method, the summary or the group. */
export function found(groups: ReturnType<typeof callsOf>, search: string): ReturnType<typeof callsOf> {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  return groups
    .map((group) => ({
      ...group,
      calls: group.calls.filter((call) => {
        const text = `${call.method} ${call.path} ${call.summary} ${group.name}`.toLowerCase();
        return words.every((word) => text.includes(word));
      }),
    }))
    .filter((group) => group.calls.length > 0);
}

/** What a reference leads to; itself where it is none. */
export function resolved(document: OpenApi, schema: Schema): Schema {
  const name = schema.$ref?.split('/').at(-1);
  return name
    ? { ...document.components.schemas[name], ...(schema.description && { description: schema.description }) }
    : schema;
}

/** An answer, wherever it is written down. */
export function answerOf(document: OpenApi, answer: Answer): Answer {
  const name = answer.$ref?.split('/').at(-1);
  return (name ? document.components.responses[name] : undefined) ?? answer;
}

/** What kind of value a schema takes, in a few words of JSON's own. */
export function typeOf(document: OpenApi, schema: Schema): string {
  const choices = schema.oneOf ?? schema.anyOf;
  if (choices) return [...new Set(choices.map((choice) => typeOf(document, choice)))].join(' or ');
  const real = resolved(document, schema);
  if (real.enum) return real.enum.join(' | ');
  const types = [real.type ?? 'object'].flat();
  const named = types.map((type) => {
    if (type === 'array') return real.items ? `array of ${typeOf(document, real.items)}` : 'array';
    if (type === 'object') return schema.$ref?.split('/').at(-1) ?? 'object';
    return real.format ? `${type} (${real.format})` : type;
  });
  // Null is told last, whatever the order of the document.
  return [...named.filter((n) => !n.startsWith('null')), ...(types.includes('null') ? ['null'] : [])].join(
    ' or ',
  );
}

/** The schema whose members are worth listing: of an array that of its items. */
export function membersOf(document: OpenApi, schema: Schema): Record<string, Schema> | null {
  const choice = (schema.oneOf ?? schema.anyOf)?.find((c) => c.$ref);
  const real = resolved(document, choice ?? schema);
  if (real.items) return membersOf(document, real.items);
  return real.properties ?? null;
}
