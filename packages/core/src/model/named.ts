import { indexModel } from './lookup.js';
import { bareObject, isJsonObject, type Json } from './records.js';
import type { AttributeType, Model } from './types.js';

/**
 * A stored value by the names of the model; structured values are stored by identities. `secrets`: with the parts of
 * them that are write-only.
 */
export function namedValue(model: Model, type: AttributeType, value: Json, secrets: boolean): Json {
  if (type.kind === 'list' && Array.isArray(value))
    return (value as readonly Json[]).map((item) => namedValue(model, type.of, item, secrets));
  if (type.kind !== 'value' || !isJsonObject(value)) return value;
  const named = bareObject();
  for (const part of indexModel(model).values.get(type.name)?.attributes ?? []) {
    const inner = value[part.id] ?? null;
    if (inner !== null && (secrets || !part.writeOnly))
      named[part.name] = namedValue(model, part.type, inner, secrets);
  }
  return named;
}
