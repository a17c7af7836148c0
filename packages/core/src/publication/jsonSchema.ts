import type { Contract } from '../contract/index.js';
import { isJsonObject, type Json, type JsonObject } from '../model/index.js';
import { componentSchemas } from './openapi/schemas.js';

const DIALECT = 'https://json-schema.org/draft/2020-12/schema';
const COMPONENTS = '#/components/schemas/';

/** All shapes of a contract as one document of definitions (JSON Schema 2020-12 §8.2.4). */
export const schemaBundle = (contract: Contract): JsonObject => ({
  $schema: DIALECT,
  $id: `${contract.root}/json-schema.json`,
  title: contract.title,
  ...(contract.description === null ? {} : { description: contract.description }),
  $defs: withDefs(componentSchemas(contract)),
});

/** The schema of one shape with all it refers to. `id`: where it is. */
export function schemaOfShape(contract: Contract, shape: string, id: string): JsonObject {
  const schemas = componentSchemas(contract);
  const defined = new Map<string, Json>();
  const define = (name: string): void => {
    if (defined.has(name) || !Object.hasOwn(schemas, name)) return;
    const schema = schemas[name] ?? null;
    defined.set(name, schema);
    for (const other of referencesIn(schema)) define(other);
  };
  define(shape);
  return {
    $schema: DIALECT,
    $id: id,
    $ref: `#/$defs/${shape}`,
    $defs: Object.fromEntries([...defined].map(([name, schema]) => [name, withDefs(schema)])),
  };
}

function referencesIn(schema: Json): readonly string[] {
  if (Array.isArray(schema)) return (schema as readonly Json[]).flatMap(referencesIn);
  if (!isJsonObject(schema)) return [];
  return Object.entries(schema).flatMap(([name, value]) =>
    name === '$ref' && typeof value === 'string' && value.startsWith(COMPONENTS)
      ? [value.slice(COMPONENTS.length)]
      : referencesIn(value),
  );
}

/** The same schema with its references into `$defs`. */
function withDefs(schema: Json): Json {
  if (Array.isArray(schema)) return (schema as readonly Json[]).map(withDefs);
  if (!isJsonObject(schema)) return schema;
  const own: JsonObject = Object.fromEntries(
    Object.entries(schema).map(([name, value]) => [
      name,
      name === '$ref' && typeof value === 'string' ? value.replace(COMPONENTS, '#/$defs/') : withDefs(value),
    ]),
  );
  return own;
}
