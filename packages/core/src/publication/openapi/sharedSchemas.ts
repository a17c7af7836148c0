import { bareObject, entryOf, type Json, type JsonObject } from '../../model/index.js';
import { withInner, withSchemas, type SchemaChange } from './schemasIn.js';
import { componentName, freeName } from './share.js';

/** A schema no longer than this says as much as a reference to it. */
const SHORT = 50;

/**
 * A document in which every schema that stood twice is a component with a name (OAS §4.8.7). What has a name keeps it.
 */
export function withSharedSchemas(document: JsonObject): JsonObject {
  const uses = new Map<string, { count: number; readonly hint: string }>();
  const texts = new Map<JsonObject, string>();
  const textOf = (schema: JsonObject): string => entryOf(texts, schema, () => JSON.stringify(schema));
  changed(document, (schema, hint) => {
    const text = textOf(schema);
    const known = uses.get(text);
    if (known === undefined) uses.set(text, { count: 1, hint });
    else known.count++;
    return schema;
  });
  const taken = new Set(Object.keys(schemasOf(document)));
  const named = new Map(
    [...uses]
      .filter(([text, { count }]) => count > 1 && text.length > SHORT)
      .map(([text, { hint }]) => [text, freeName([componentName(hint)], taken)]),
  );
  const shared: Record<string, Json> = bareObject();
  const refer = (schema: JsonObject): JsonObject => {
    const name = named.get(textOf(schema));
    if (name === undefined) return schema;
    shared[name] ??= withInner(schema, name, (inner, hint) => unnamed(inner, hint, refer));
    return { $ref: `#/components/schemas/${name}` };
  };
  const written = changed(document, refer);
  const components = written['components'] as JsonObject;
  return {
    ...written,
    components: { ...components, schemas: { ...schemasOf(written), ...shared } },
  };
}

const schemasOf = (document: JsonObject): JsonObject =>
  ((document['components'] as JsonObject)['schemas'] ?? {}) as JsonObject;

/** A document with every schema that has no name as `change` gives it. */
const changed = (document: JsonObject, change: SchemaChange): JsonObject =>
  withSchemas(
    document,
    (schema, hint) => unnamed(schema, hint, change),
    (schema, name) => withInner(schema, name, (inner, hint) => unnamed(inner, hint, change)),
    false,
  );

function unnamed(schema: JsonObject, hint: string, change: SchemaChange): JsonObject {
  if (typeof schema['$ref'] === 'string') return schema;
  const found = change(schema, hint);
  return found === schema ? withInner(schema, hint, (inner, name) => unnamed(inner, name, change)) : found;
}
