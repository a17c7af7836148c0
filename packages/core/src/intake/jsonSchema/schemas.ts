import { isJsonObject, type Json } from '../../model/index.js';
import { LineTable } from '../lines.js';
import type { SourceLines } from '../lines.js';

/** A schema that is an object; schemas that are `true` or `false` are read as empty ones. */
export type Schema = { readonly [keyword: string]: Json };

export const asSchema = (value: Json | undefined): Schema => (isJsonObject(value) ? value : {});

export const textIn = (schema: Schema, keyword: string): string | null => {
  const value = schema[keyword];
  return typeof value === 'string' && value !== '' ? value : null;
};

export const numberIn = (schema: Schema, keyword: string): number | null => {
  const value = schema[keyword];
  return typeof value === 'number' ? value : null;
};

export const propertiesOf = (schema: Schema): readonly (readonly [string, Schema])[] =>
  Object.entries(asSchema(schema['properties'])).map(([name, value]) => [name, asSchema(value)] as const);

export const requiredOf = (schema: Schema): ReadonlySet<string> => {
  const { required } = schema;
  return new Set(Array.isArray(required) ? required.filter((name) => typeof name === 'string') : []);
};

/** The types a schema allows, `null` left out. */
export function typesOf(schema: Schema): readonly string[] {
  const { type } = schema;
  const types = typeof type === 'string' ? [type] : Array.isArray(type) ? (type as readonly Json[]) : [];
  return types.filter((name): name is string => typeof name === 'string' && name !== 'null');
}

export const allowsNull = ({ type }: Schema): boolean =>
  type === 'null' || (Array.isArray(type) && (type as readonly Json[]).includes('null'));

/** The values that `const` and `enum` allow (JSON Schema 2020-12 §6.1.2, §6.1.3); none where any is. */
function constantsIn(schema: Schema): readonly Json[] {
  if ('const' in schema) return [schema['const'] ?? null];
  const listed = schema['enum'];
  return Array.isArray(listed) ? (listed as readonly Json[]) : [];
}

const LONGEST_CHAIN = 32;

/** One document with everything that can be referred to in it (JSON Schema 2020-12 §8.2, draft-07 §8). */
export class SchemaDocument {
  private readonly named = new Map<string, Schema>();
  private readonly lines: LineTable;
  readonly root: Schema;

  constructor(
    root: Schema,
    text: string,
    private readonly offsets: WeakMap<object, number>,
  ) {
    this.root = root;
    this.lines = new LineTable(text);
    this.collect(root, '');
  }

  linesOf(schema: object): SourceLines {
    return this.lines.at(this.offsets.get(schema));
  }

  /**
   * A schema for what is one of two things: constants and options are options together; of anything else the first says
   * what it is.
   */
  either(one: Schema, other: Schema): Schema {
    const options = [...constantsIn(one), ...constantsIn(other)];
    if (constantsIn(one).length === 0 || constantsIn(other).length === 0) return one;
    const { const: _constant, ...said } = one;
    const both: Schema = { ...said, enum: [...new Set(options)] };
    const offset = this.offsets.get(one);
    if (offset !== undefined) this.offsets.set(both, offset);
    return both;
  }

  /** What a reference in the document points at; `null` where that is elsewhere, or nowhere. */
  find(reference: string): Schema | null {
    const known = this.named.get(reference);
    if (known !== undefined) return known;
    const [base = '', fragment = ''] = reference.split('#');
    const start = base === '' ? this.root : (this.named.get(base) ?? null);
    if (start === null) return null;
    if (fragment === '') return start;
    return fragment.startsWith('/') ? pointed(start, fragment) : (this.named.get(`#${fragment}`) ?? null);
  }

  /** The schema that is meant after all references in a row; `null` where they lead nowhere or in a circle. */
  resolve(schema: Schema): Schema | null {
    let found = schema;
    for (let step = 0; step < LONGEST_CHAIN; step++) {
      const reference = textIn(found, '$ref');
      if (reference === null) return found;
      const next = this.find(reference);
      if (next === null) return null;
      found = next;
    }
    return null;
  }

  /** Remembers the schemas that have an identifier or an anchor. */
  private collect(value: Json, base: string): void {
    if (Array.isArray(value)) {
      for (const item of value as readonly Json[]) this.collect(item, base);
      return;
    }
    if (!isJsonObject(value)) return;
    const id = textIn(value, '$id');
    const own = id ?? base;
    if (id !== null) this.named.set(id.replace(/#$/, ''), value);
    if (id?.startsWith('#') === true) this.named.set(id, value);
    const anchor = textIn(value, '$anchor') ?? textIn(value, '$dynamicAnchor');
    if (anchor !== null) {
      this.named.set(`#${anchor}`, value);
      this.named.set(`${own}#${anchor}`, value);
    }
    for (const [keyword, inner] of Object.entries(value))
      if (!LITERALS.has(keyword)) this.collect(inner, own);
  }
}

/** Keywords whose values are data rather than schemas. */
const LITERALS: ReadonlySet<string> = new Set(['const', 'enum', 'default', 'examples', 'example']);

/** What a JSON pointer in a URI fragment (RFC 6901 §6) points at. */
function pointed(start: Schema, fragment: string): Schema | null {
  let found: Json | undefined = start;
  for (const part of fragment.slice(1).split('/')) {
    const name = decoded(part).replaceAll('~1', '/').replaceAll('~0', '~');
    if (Array.isArray(found)) found = (found as readonly Json[])[Number(name)];
    else if (isJsonObject(found) && name in found) found = found[name];
    else return null;
  }
  return isJsonObject(found) ? found : null;
}

function decoded(part: string): string {
  try {
    return decodeURIComponent(part);
  } catch (error) {
    if (error instanceof URIError) return part;
    throw error;
  }
}
