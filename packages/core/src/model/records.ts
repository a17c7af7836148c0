/** A JSON value as a record holds it. Objects have no prototype, so no name in them is special. */
export type Json = null | boolean | number | string | readonly Json[] | JsonObject;

export interface JsonObject {
  readonly [name: string]: Json;
}

/** Inherits nothing but from an empty object; unlike an object without prototype it is laid out as others are. */
const Bare = function (): void {
  // Members come later.
} as unknown as new () => Record<string, Json>;
Bare.prototype = Object.create(null) as object;

/** An object that has no name of its own: `__proto__` and `constructor` are ordinary names in it. */
export const bareObject = <T extends Json = Json>(): Record<string, T> => new Bare() as Record<string, T>;

/**
 * One record. `values` is keyed by the identity of an attribute (its value), a reference (the `rid` it
 * points at) or the ownership (the `rid` of the owner). What is unset is absent.
 */
export interface Row {
  /** Number of the record in its dataset; never used again. */
  readonly rid: number;
  /** The identity of the entity. */
  readonly entity: string;
  readonly values: Readonly<Record<string, Json>>;
  /** Counts the changes of the record, from 1. */
  readonly revision: number;
}

export function isJsonObject(value: Json | undefined): value is JsonObject {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** A key or another scalar as it stands in a path or a message; the empty text while unset. */
export function scalarText(value: Json | undefined): string {
  if (value === undefined || value === null) return '';
  return typeof value === 'string' ? value : JSON.stringify(value);
}

/** Whether two JSON values are the same, whatever the order of members. */
export function sameJson(a: Json | undefined, b: Json | undefined): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b)) {
    return a.length === b.length && a.every((item: Json, index) => sameJson(item, b[index] as Json));
  }
  if (!isJsonObject(a) || !isJsonObject(b)) return false;
  const names = Object.keys(a);
  return (
    names.length === Object.keys(b).length && names.every((name) => name in b && sameJson(a[name], b[name]))
  );
}

/** A text percent-encoded wholly: nothing but unreserved characters stays as it is (RFC 3986 §2.3). */
export const percentEncoded = (text: string): string =>
  encodeURIComponent(text).replace(/[!'()*]/g, (mark) => `%${mark.charCodeAt(0).toString(16).toUpperCase()}`);
