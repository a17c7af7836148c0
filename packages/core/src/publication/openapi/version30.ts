import { isJsonObject, type Json, type JsonObject } from '../../model/index.js';
import { withInner, withSchemas } from './schemasIn.js';

/** A document of version 3.0.3 that says what one of 3.1 says, as far as that can be said. */
export function asVersion30(document: JsonObject): {
  readonly document: JsonObject;
  readonly cannotSay: readonly string[];
} {
  const losses = new Losses();
  const { openapi: _version, info, ...rest } = document;
  const { summary, ...said } = info as JsonObject;
  if (summary !== undefined) losses.add('The summary of the API is left out.');
  const written = new Writer(losses).document(rest);
  return {
    document: { openapi: '3.0.3', info: said, ...written },
    cannotSay: losses.sentences(),
  };
}

/** What is changed or left out, each with how often. */
class Losses {
  private readonly counts = new Map<string, number>();

  add(sentence: string): void {
    this.counts.set(sentence, (this.counts.get(sentence) ?? 0) + 1);
  }

  sentences(): readonly string[] {
    return [...this.counts].map(([sentence, count]) => (count === 1 ? sentence : `${sentence} (${count})`));
  }
}

const NULL_TYPE = 'null is no type: nullable takes its place.';
const BESIDE_REFERENCE = 'What stands beside a reference is not read: the reference stands in allOf.';
const EXAMPLES = 'A schema has one example: the first is kept.';
const PATTERN = 'A pattern that needs the flag u is left out.';

/** Syntax that ECMA-262 5.1 does not have, by which patterns of 3.0 are read. */
const BEYOND_ES5 = /\\u\{|\\[pP]\{|\(\?<[=!]/;

const mapped = (of: JsonObject, change: (value: Json) => Json): JsonObject =>
  Object.fromEntries(Object.entries(of).map(([name, value]) => [name, change(value)]));

class Writer {
  constructor(private readonly losses: Losses) {}

  document(document: JsonObject): JsonObject {
    const schema = (one: JsonObject): JsonObject => this.schema(one);
    const written = withSchemas(document, schema, schema);
    return { ...written, paths: this.withoutRoles(written['paths'] as JsonObject) };
  }

  private withoutRoles(paths: JsonObject): JsonObject {
    const operation = (one: Json): Json =>
      isJsonObject(one) && Array.isArray(one['security'])
        ? { ...one, security: this.security(one['security'] as readonly JsonObject[]) }
        : one;
    return mapped(paths, (item) => mapped(item as JsonObject, operation));
  }

  /** Scopes are those of OAuth 2 alone (OAS 3.0.3 §4.7.30). */
  private security(requirements: readonly JsonObject[]): Json {
    return requirements.map((requirement) =>
      Object.fromEntries(
        Object.entries(requirement).map(([scheme, roles]) => {
          for (const role of roles as readonly string[])
            this.losses.add(`The role ${role} that operations ask for is left out.`);
          return [scheme, []];
        }),
      ),
    );
  }

  /** A Schema Object of 3.0 (OAS 3.0.3 §4.7.24), an extended subset of an older JSON Schema. */
  private schema(schema: JsonObject): JsonObject {
    const { $ref, ...beside } = schema;
    if ($ref !== undefined) {
      if (Object.keys(beside).length === 0) return schema;
      this.losses.add(BESIDE_REFERENCE);
      return { allOf: [{ $ref }], ...this.keywords(beside) };
    }
    return this.keywords(schema);
  }

  private keywords(schema: JsonObject): JsonObject {
    const inner = withInner(schema, '', (one) => this.schema(one));
    return Object.fromEntries(
      Object.entries(inner).flatMap(([keyword, value]) => this.keyword(keyword, value)),
    );
  }

  private keyword(keyword: string, value: Json): readonly (readonly [string, Json])[] {
    switch (keyword) {
      case 'type': {
        if (typeof value === 'string' && value !== 'null') return [[keyword, value]];
        this.losses.add(NULL_TYPE);
        const [type] = (Array.isArray(value) ? (value as readonly string[]) : []).filter(
          (one) => one !== 'null',
        );
        return type === undefined
          ? [['enum', [null]]]
          : [
              ['type', type],
              ['nullable', true],
            ];
      }
      case 'examples': {
        const all = value as readonly Json[];
        if (all.length > 1) this.losses.add(EXAMPLES);
        return all[0] === undefined ? [] : [['example', all[0]]];
      }
      // In the older JSON Schema they say of the bound beside them that it is out.
      case 'exclusiveMinimum':
        return [
          ['minimum', value],
          [keyword, true],
        ];
      case 'exclusiveMaximum':
        return [
          ['maximum', value],
          [keyword, true],
        ];
      case 'pattern':
        if (!BEYOND_ES5.test(value as string)) return [[keyword, value]];
        this.losses.add(PATTERN);
        return [];
      default:
        return [[keyword, value]];
    }
  }
}
