import { escapePointer } from '../arrangement/index.js';
import {
  checkScalar,
  codePointLength,
  decimalPlaces,
  compilePattern,
  DURATION,
  isDate,
  isInstant,
  isJsonObject,
  sameJson,
  TIME,
  type Json,
  type JsonObject,
  type ScalarType,
} from '../model/index.js';
import type { JsonSchema } from '../publication/index.js';

/** Where a value differs from its schema: a JSON Pointer (RFC 6901) to the part, and what was expected there. */
export interface Mismatch {
  readonly pointer: string;
  readonly message: string;
}

/** The schemas that references lead to, by their names, and the patterns of the model by those of schemas. */
export interface Schemas {
  readonly byName: Readonly<Record<string, Json>>;
  readonly patterns: ReadonlyMap<string, string>;
}

/**
 * Judges a value by a schema as descriptions are published with (JSON Schema 2020-12). Only keywords that are published
 * are known; another one is an error of ours, and throws. Patterns run in linear time.
 */
export function mismatches(schemas: Schemas, schema: JsonSchema, value: Json): readonly Mismatch[] {
  const found: Mismatch[] = [];
  new Judge(schemas, found).judge(schema, value, '');
  return found;
}

/** What only tells readers about a value (JSON Schema Validation §9). */
const ANNOTATIONS: ReadonlySet<string> = new Set([
  'description',
  'default',
  'examples',
  'readOnly',
  'writeOnly',
]);

const REFERENCE = '#/components/schemas/';

class Judge {
  constructor(
    private readonly schemas: Schemas,
    private readonly found: Mismatch[],
  ) {}

  judge(schema: JsonSchema, value: Json, pointer: string): void {
    for (const [keyword, wanted] of Object.entries(schema))
      if (!ANNOTATIONS.has(keyword)) this.judgeBy(keyword, wanted, schema, value, pointer);
  }

  private judgeBy(keyword: string, wanted: Json, schema: JsonSchema, value: Json, pointer: string): void {
    const expect = (fits: boolean, message: string): void => {
      if (!fits) this.found.push({ pointer, message });
    };
    switch (keyword) {
      case '$ref':
        this.judge(this.referenced(wanted as string), value, pointer);
        return;
      case 'anyOf': {
        const ways = (wanted as JsonSchema[]).map((way) => mismatches(this.schemas, way, value));
        expect(
          ways.some((way) => way.length === 0),
          ways.map(([first]) => first?.message ?? '').join(' Or: '),
        );
        return;
      }
      case 'type': {
        const types = typeof wanted === 'string' ? [wanted] : (wanted as string[]);
        expect(
          types.some((type) => isOfType(type, value)),
          `Expected ${types.join(' or ')}.`,
        );
        return;
      }
      case 'enum':
        expect(
          (wanted as Json[]).some((option) => sameJson(option, value)),
          `Expected one of ${(wanted as Json[]).map(String).join(', ')}.`,
        );
        return;
      default:
        if (typeof value === 'string') expectText(this.schemas, keyword, wanted, value, expect);
        else if (typeof value === 'number') expectNumber(keyword, wanted, value, expect);
        else if (Array.isArray(value)) this.judgeItems(keyword, wanted, value, pointer, expect);
        else if (isJsonObject(value)) this.judgeMembers(keyword, wanted, schema, value, pointer);
        if (!KNOWN.has(keyword)) throw new Error(`No published schema has the keyword ${keyword}.`);
    }
  }

  private judgeItems(
    keyword: string,
    wanted: Json,
    value: readonly Json[],
    pointer: string,
    expect: Expect,
  ): void {
    switch (keyword) {
      case 'items':
        for (const [index, item] of value.entries())
          this.judge(wanted as JsonSchema, item, `${pointer}/${index}`);
        return;
      case 'minItems':
        expect(value.length >= Number(wanted), `Expected at least ${Number(wanted)} items.`);
        return;
      case 'maxItems':
        expect(value.length <= Number(wanted), `Expected at most ${Number(wanted)} items.`);
    }
  }

  private judgeMembers(
    keyword: string,
    wanted: Json,
    { properties = {} }: JsonSchema,
    value: JsonObject,
    pointer: string,
  ): void {
    const at = (name: string): string => `${pointer}/${escapePointer(name)}`;
    switch (keyword) {
      case 'properties':
        for (const [name, schema] of Object.entries(wanted as Record<string, JsonSchema>))
          if (Object.hasOwn(value, name)) this.judge(schema, value[name] ?? null, at(name));
        return;
      case 'required':
        for (const name of wanted as string[])
          if (!Object.hasOwn(value, name)) this.found.push({ pointer: at(name), message: 'It is missing.' });
        return;
      case 'additionalProperties':
        for (const [name, member] of Object.entries(value)) {
          if (Object.hasOwn(properties as object, name)) continue;
          if (wanted === false) this.found.push({ pointer: at(name), message: 'It is not described.' });
          else this.judge(wanted as JsonSchema, member, at(name));
        }
    }
  }

  private referenced(reference: string): JsonSchema {
    const name = reference.slice(REFERENCE.length);
    if (!reference.startsWith(REFERENCE) || !Object.hasOwn(this.schemas.byName, name))
      throw new Error(`There is no schema ${reference}.`);
    return this.schemas.byName[name] as JsonSchema;
  }
}

type Expect = (fits: boolean, message: string) => void;

const KNOWN: ReadonlySet<string> = new Set([
  'properties',
  'required',
  'additionalProperties',
  'items',
  'minItems',
  'maxItems',
  'minLength',
  'maxLength',
  'pattern',
  'format',
  'minimum',
  'exclusiveMinimum',
  'maximum',
  'exclusiveMaximum',
  'multipleOf',
]);

function isOfType(type: string, value: Json): boolean {
  switch (type) {
    case 'null':
      return value === null;
    case 'array':
      return Array.isArray(value);
    case 'object':
      return isJsonObject(value);
    case 'integer':
      return typeof value === 'number' && Number.isInteger(value);
    default:
      return typeof value === type;
  }
}

function expectText(schemas: Schemas, keyword: string, wanted: Json, text: string, expect: Expect): void {
  switch (keyword) {
    case 'minLength':
      expect(codePointLength(text) >= Number(wanted), `Expected at least ${Number(wanted)} characters.`);
      return;
    case 'maxLength':
      expect(codePointLength(text) <= Number(wanted), `Expected at most ${Number(wanted)} characters.`);
      return;
    case 'pattern':
      expect(matches(schemas, wanted as string, text), `Expected text that matches ${wanted as string}.`);
      return;
    case 'format':
      expect(isOfFormat(wanted as string, text), `Expected the format ${wanted as string}.`);
  }
}

function expectNumber(keyword: string, wanted: Json, value: number, expect: Expect): void {
  switch (keyword) {
    case 'minimum':
      expect(value >= Number(wanted), `Expected at least ${Number(wanted)}.`);
      return;
    case 'exclusiveMinimum':
      expect(value > Number(wanted), `Expected more than ${Number(wanted)}.`);
      return;
    case 'exclusiveMaximum':
      expect(value < Number(wanted), `Expected less than ${Number(wanted)}.`);
      return;
    case 'multipleOf':
      // A power of ten: binary arithmetic would get it wrong.
      expect(
        decimalPlaces(value) <= decimalPlaces(Number(wanted)),
        `Expected at most ${decimalPlaces(Number(wanted))} digits after the point.`,
      );
      return;
    case 'maximum':
      expect(value <= Number(wanted), `Expected at most ${Number(wanted)}.`);
  }
}

/** Patterns of ours; all others are those of models. */
const OWN_PATTERNS: ReadonlyMap<string, RegExp> = new Map([TIME, DURATION].map((own) => [own.source, own]));

function matches({ patterns }: Schemas, pattern: string, text: string): boolean {
  const own = OWN_PATTERNS.get(pattern);
  if (own !== undefined) return own.test(text);
  const source = patterns.get(pattern);
  if (source === undefined) throw new Error(`No text of the model has the pattern ${pattern}.`);
  return compilePattern(source).matches(text);
}

/** RFC 3986 §4.1, as far as its characters go. */
const URI_REFERENCE = /^(?:[A-Za-z0-9\-._~:/?#[\]@!$&'()*+,;=]|%[0-9A-Fa-f]{2})*$/;
/** RFC 6901 §3. */
const JSON_POINTER = /^(?:\/(?:[^~/]|~[01])*)*$/;

const isScalar = (kind: 'uuid' | 'email' | 'uri', text: string): boolean =>
  checkScalar({ kind } satisfies ScalarType, text) === null;

function isOfFormat(format: string, text: string): boolean {
  switch (format) {
    case 'date':
      return isDate(text);
    case 'date-time':
      return isInstant(text);
    case 'uuid':
    case 'email':
    case 'uri':
      return isScalar(format, text);
    case 'uri-reference':
      return URI_REFERENCE.test(text);
    case 'json-pointer':
      return JSON_POINTER.test(text);
    default:
      throw new Error(`No published schema has the format ${format}.`);
  }
}
