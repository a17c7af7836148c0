import { isJsonObject, type Json, type JsonObject } from '../../model/index.js';

/** A name in a document. */
export const nameIn = (json: Json | undefined): string => (typeof json === 'string' ? json : '');

/** What becomes of a schema. `hint`: what it is about. */
export type SchemaChange = (schema: JsonObject, hint: string) => JsonObject;

const METHODS: ReadonlySet<string> = new Set(['get', 'put', 'post', 'patch', 'delete']);

/**
 * A document with its schemas changed, wherever one stands (OAS §4.8): in parameters, headers and bodies by `unnamed`,
 * components by `named`. `inBodies`: whether bodies have any besides
 * references. Names are names here, whatever they are.
 */
export function withSchemas(
  document: JsonObject,
  unnamed: SchemaChange,
  named: SchemaChange,
  inBodies = true,
): JsonObject {
  const each = (of: Json | undefined, change: (value: JsonObject, name: string) => JsonObject): JsonObject =>
    withValues((of ?? {}) as JsonObject, (value, name) => change(value as JsonObject, name));
  const within = (
    holder: JsonObject,
    parts: Readonly<Record<string, (part: Json, name: string) => Json>>,
  ): JsonObject => withValues(holder, (value, name) => parts[name]?.(value, name) ?? value);
  const holding =
    (hint: string) =>
    (holder: JsonObject): JsonObject =>
      within(holder, { schema: (schema) => unnamed(schema as JsonObject, hint) });
  const parameter = (one: JsonObject): JsonObject => holding(nameIn(one['name']))(one);
  const parameters = (all: Json): Json => withItems(all as readonly JsonObject[], parameter);
  const content = (types: Json): Json => each(types, (type) => holding('body')(type));
  const headers = (all: Json): Json => each(all, (one, name) => holding(name)(one));
  const response = (one: JsonObject): JsonObject => within(one, { headers, content });
  const responses = (all: Json): Json => each(all, response);
  const requestBody = (body: Json): Json => within(body as JsonObject, { content });
  const operation = (one: JsonObject): JsonObject =>
    within(one, inBodies ? { parameters, requestBody, responses } : { parameters });
  const pathItem = (item: JsonObject): JsonObject =>
    withValues(item, (value, name) => {
      if (name === 'parameters') return parameters(value);
      return METHODS.has(name) ? operation(value as JsonObject) : value;
    });
  return within(document, {
    paths: (paths) => each(paths, pathItem),
    components: (components) =>
      within(components as JsonObject, {
        schemas: (schemas) => each(schemas, named),
        parameters: (all) => each(all, parameter),
        headers,
        responses,
      }),
  });
}

/** A schema with the schemas in it changed (JSON Schema 2020-12 §10). */
export const withInner = (schema: JsonObject, hint: string, change: SchemaChange): JsonObject =>
  withValues(schema, (value, keyword) => {
    switch (keyword) {
      case 'properties':
        return withValues(value as JsonObject, (inner, name) =>
          change(inner as JsonObject, `${hint}.${name}`),
        );
      case 'items':
      case 'additionalProperties':
        return isJsonObject(value) ? change(value, `${hint}.item`) : value;
      case 'anyOf':
      case 'allOf':
        return withItems(value as readonly JsonObject[], (inner) => change(inner, hint));
      default:
        return value;
    }
  });

/** An object with its values as `change` gives them; itself where none is another. */
function withValues(of: JsonObject, change: (value: Json, name: string) => Json): JsonObject {
  let written: Record<string, Json> | null = null;
  for (const name of Object.keys(of)) {
    const value = of[name] ?? null;
    const found = change(value, name);
    if (found === value) continue;
    written ??= { ...of };
    written[name] = found;
  }
  return written ?? of;
}

/** A list with its items as `change` gives them; itself where none is another. */
function withItems(
  of: readonly JsonObject[],
  change: (item: JsonObject) => JsonObject,
): readonly JsonObject[] {
  const written = of.map(change);
  return written.some((item, at) => item !== of[at]) ? written : of;
}
