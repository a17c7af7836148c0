import { isJsonObject, type Json, type JsonObject } from '../../model/index.js';
import { componentName, freeName } from './share.js';

/** A schema no longer than this says as much as a reference to it. */
const SHORT = 64;

/**
 * A document in which every schema that stood twice is a component with a name (OAS §4.8.7). `document` has its
 * components under `components`; names that are taken there stay.
 */
export function withSharedSchemas(document: JsonObject): JsonObject {
  const uses = new Map<string, { count: number; readonly hint: string }>();
  walk(document, '', (schema, hint) => {
    const text = JSON.stringify(schema);
    const known = uses.get(text);
    if (known === undefined) uses.set(text, { count: 1, hint });
    else known.count++;
    return schema;
  });
  const components = document['components'] as JsonObject;
  const taken = new Set(Object.keys((components['schemas'] ?? {}) as JsonObject));
  const named = new Map<string, string>();
  for (const [text, { count, hint }] of uses) {
    if (count < 2 || text.length <= SHORT) continue;
    named.set(text, freeName([componentName(hint)], taken));
  }
  const shared: Record<string, Json> = {};
  const refer = (schema: JsonObject): JsonObject => {
    const name = named.get(JSON.stringify(schema));
    if (name === undefined) return schema;
    shared[name] ??= inside(schema, name, refer);
    return { $ref: `#/components/schemas/${name}` };
  };
  const written = walk(document, '', refer) as { readonly [name: string]: Json };
  const rest = written['components'] as JsonObject;
  return {
    ...written,
    components: { ...rest, schemas: { ...((rest['schemas'] ?? {}) as JsonObject), ...shared } },
  };
}

type Visit = (schema: JsonObject, hint: string) => JsonObject;

/** Everything in a document, its schemas as `visit` gives them; what a component is stays, what is in it is visited. */
function walk(json: Json, hint: string, visit: Visit): Json {
  if (Array.isArray(json)) return (json as readonly Json[]).map((item) => walk(item, hint, visit));
  if (!isJsonObject(json)) return json;
  const named = typeof json['name'] === 'string' ? json['name'] : hint;
  return Object.fromEntries(
    Object.entries(json).map(([key, value]): [string, Json] => {
      if (key === 'schema' && isJsonObject(value)) return [key, at(value, named, visit)];
      if (key === 'schemas' && isJsonObject(value))
        return [key, mapped(value, (schema, name) => inside(schema, name, visit))];
      if (EXAMPLES.has(key)) return [key, value];
      return [key, walk(value, named, visit)];
    }),
  );
}

/** What they hold is anything, and no part of the document. */
const EXAMPLES: ReadonlySet<string> = new Set(['examples', 'example', 'default', 'enum']);

/** A schema that has no name, and what is in it. */
function at(schema: JsonObject, hint: string, visit: Visit): JsonObject {
  if (typeof schema['$ref'] === 'string') return schema;
  const visited = visit(schema, hint);
  return visited === schema ? inside(schema, hint, visit) : visited;
}

/** A schema with the schemas in it visited (JSON Schema 2020-12, §10). */
function inside(schema: JsonObject, hint: string, visit: Visit): JsonObject {
  return Object.fromEntries(
    Object.entries(schema).map(([keyword, value]): [string, Json] => {
      switch (keyword) {
        case 'properties':
          return [keyword, mapped(value, (inner, name) => at(inner, `${hint}.${name}`, visit))];
        case 'items':
        case 'additionalProperties':
          return [keyword, isJsonObject(value) ? at(value, `${hint}.item`, visit) : value];
        case 'anyOf':
        case 'allOf':
          return [keyword, (value as readonly JsonObject[]).map((inner) => at(inner, hint, visit))];
        default:
          return [keyword, value];
      }
    }),
  );
}

const mapped = (of: Json, as: (schema: JsonObject, name: string) => JsonObject): JsonObject =>
  Object.fromEntries(
    Object.entries(of as { readonly [name: string]: JsonObject }).map(([name, value]) => [
      name,
      as(value, name),
    ]),
  );
