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
    Object.fromEntries(
      Object.entries((of ?? {}) as JsonObject).map(([name, value]) => [
        name,
        change(value as JsonObject, name),
      ]),
    );
  const within = (
    holder: JsonObject,
    parts: Readonly<Record<string, (part: Json, name: string) => Json>>,
  ): JsonObject =>
    Object.fromEntries(
      Object.entries(holder).map(([name, value]) => [name, parts[name]?.(value, name) ?? value]),
    );
  const holding =
    (hint: string) =>
    (holder: JsonObject): JsonObject =>
      within(holder, { schema: (schema) => unnamed(schema as JsonObject, hint) });
  const parameter = (one: JsonObject): JsonObject => holding(nameIn(one['name']))(one);
  const parameters = (all: Json): Json => (all as readonly JsonObject[]).map(parameter);
  const content = (types: Json): Json => each(types, (type) => holding('body')(type));
  const headers = (all: Json): Json => each(all, (one, name) => holding(name)(one));
  const response = (one: JsonObject): JsonObject => within(one, { headers, content });
  const responses = (all: Json): Json => each(all, response);
  const requestBody = (body: Json): Json => within(body as JsonObject, { content });
  const operation = (one: JsonObject): JsonObject =>
    within(one, inBodies ? { parameters, requestBody, responses } : { parameters });
  const pathItem = (item: JsonObject): JsonObject =>
    Object.fromEntries(
      Object.entries(item).map(([name, value]): [string, Json] => {
        if (name === 'parameters') return [name, parameters(value)];
        return [name, METHODS.has(name) ? operation(value as JsonObject) : value];
      }),
    );
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
export function withInner(schema: JsonObject, hint: string, change: SchemaChange): JsonObject {
  return Object.fromEntries(
    Object.entries(schema).map(([keyword, value]): [string, Json] => {
      switch (keyword) {
        case 'properties':
          return [
            keyword,
            Object.fromEntries(
              Object.entries(value as JsonObject).map(([name, inner]) => [
                name,
                change(inner as JsonObject, `${hint}.${name}`),
              ]),
            ),
          ];
        case 'items':
        case 'additionalProperties':
          return [keyword, isJsonObject(value) ? change(value, `${hint}.item`) : value];
        case 'anyOf':
        case 'allOf':
          return [keyword, (value as readonly JsonObject[]).map((inner) => change(inner, hint))];
        default:
          return [keyword, value];
      }
    }),
  );
}
