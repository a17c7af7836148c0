import { singular } from '../../model/index.js';
import { blockName, asMemberName, Names } from '../build.js';
import type { Report } from '../report.js';
import {
  allowsNull,
  asSchema,
  propertiesOf,
  requiredOf,
  textIn,
  typesOf,
  type Schema,
  type SchemaDocument,
} from './schemas.js';
import type { Json } from '../../model/index.js';

/** An object that a schema describes: an entity or a value of the model. */
export interface Definition {
  readonly name: string;
  readonly schema: Schema;
  readonly properties: ReadonlyMap<string, Schema>;
  readonly required: ReadonlySet<string>;
  /** Whether nothing but its own place in the document names it. */
  readonly isTop: boolean;
}

/** What a property leads to. */
export interface SchemaReference {
  readonly definition: Definition;
  readonly many: boolean;
}

/** What one variant of an object has. */
interface Shape {
  readonly properties: ReadonlyMap<string, Schema>;
  readonly required: ReadonlySet<string>;
}

/** All objects of a document, by the schema that describes them. */
export class Definitions {
  private readonly bySchema = new Map<Schema, Definition>();
  private readonly names = new Names();
  /** Schemas that others are composed of. */
  private readonly parts = new Set<Schema>();

  constructor(
    private readonly document: SchemaDocument,
    /** What one record is, where the schema has no title. */
    record: string,
    private readonly report: Report,
  ) {
    const { root } = document;
    for (const [name, schema] of namedSchemas(root)) this.add(schema, blockName(name, 'Thing'), true);
    const described = this.recordOf(root);
    const titled = textIn(described, 'title') ?? textIn(root, 'title');
    this.add(described, blockName(titled === null ? record : singular(titled), 'Record'), true);
    const unnamed = titled === null ? this.bySchema.get(described) : undefined;
    if (unnamed?.isTop === true && !this.isNamed(described))
      this.report.askRecord(document.linesOf(described), unnamed.name);
    for (const definition of this.bySchema.values())
      for (const [name, schema] of definition.properties) this.addInline(definition, name, schema);
  }

  /** What one record is: of a list at the root, one of its items. */
  private recordOf(root: Schema): Schema {
    if (!typesOf(root).includes('array')) return root;
    return this.document.resolve(withoutNull(asSchema(root['items']))) ?? root;
  }

  /** Whether a schema stands among those that have a name. */
  private isNamed(schema: Schema): boolean {
    return namedSchemas(this.document.root).some(([, named]) => named === schema);
  }

  all(): readonly Definition[] {
    return [...this.bySchema.values()];
  }

  /** Whether a definition is there for others to be composed of. */
  isPart({ schema }: Definition): boolean {
    return this.parts.has(schema);
  }

  /** The object a property leads to, whether it may be null, and whether to many; `null` for anything else. */
  referenceIn(schema: Schema): SchemaReference | null {
    const single = this.of(schema);
    if (single !== null) return { definition: single, many: false };
    const resolved = this.document.resolve(withoutNull(schema));
    if (resolved === null || !typesOf(resolved).includes('array')) return null;
    const items = this.of(asSchema(resolved['items']));
    return items === null ? null : { definition: items, many: true };
  }

  private of(schema: Schema): Definition | null {
    const plain = withoutNull(schema);
    const known = this.bySchema.get(plain);
    if (known !== undefined) return known;
    const resolved = this.document.resolve(plain);
    return resolved === null ? null : (this.bySchema.get(resolved) ?? null);
  }

  private add(schema: Schema, name: string, isTop: boolean): void {
    if (this.bySchema.has(schema) || textIn(schema, '$ref') !== null) return;
    const properties = new Map<string, Schema>();
    const required = new Set<string>();
    this.gather(schema, properties, required, new Set());
    if (properties.size === 0) return;
    const free = this.names.free('', name);
    this.bySchema.set(schema, { name: free, schema, properties, required, isTop });
  }

  /** Properties of a schema and of everything it is composed of by `allOf`. */
  private gather(
    schema: Schema,
    properties: Map<string, Schema>,
    required: Set<string>,
    seen: Set<Schema>,
  ): void {
    if (seen.has(schema)) return;
    seen.add(schema);
    const { allOf } = schema;
    for (const part of Array.isArray(allOf) ? (allOf as readonly Json[]) : []) {
      const resolved = this.document.resolve(asSchema(part));
      if (resolved !== null) {
        this.parts.add(resolved);
        this.gather(resolved, properties, required, seen);
      } else this.report.leave(this.document.linesOf(schema), JSON.stringify(part), UNRESOLVED);
    }
    for (const [name, property] of propertiesOf(schema)) properties.set(name, property);
    for (const name of requiredOf(schema)) required.add(name);
    this.gatherVariants(schema, properties, required);
  }

  /**
   * What a record may have besides, in one of several shapes or on a condition: an entity has one shape, so that all of
   * it may be there, and must be where every variant asks for it.
   */
  private gatherVariants(schema: Schema, properties: Map<string, Schema>, required: Set<string>): void {
    const given = ['oneOf', 'anyOf'].flatMap((keyword) => {
      const alternatives = schema[keyword];
      return Array.isArray(alternatives) ? (alternatives as readonly Json[]).map(asSchema) : [];
    });
    const conditional = ['then', 'else'].flatMap((keyword) =>
      keyword in schema ? [asSchema(schema[keyword])] : [],
    );
    const shapes = (some: readonly Schema[]): readonly Shape[] =>
      some.flatMap((one) => {
        const resolved = this.document.resolve(one);
        // What is an object of its own is one of several kinds of record, and not a shape of this one.
        if (resolved === null || (resolved !== one && this.bySchema.has(resolved))) return [];
        const [own, needed] = [new Map<string, Schema>(), new Set<string>()];
        this.gather(resolved, own, needed, new Set());
        return own.size > 0 || needed.size > 0 ? [{ properties: own, required: needed }] : [];
      });
    const others = given.filter((one) => !isNull(one));
    // One of an object and something else is anything.
    if (others.some((one) => !mayBeObject(this.document.resolve(one)))) return;
    const variants = shapes(others);
    const all = [...variants, ...shapes(conditional)];
    if (all.every((one) => one.properties.size === 0)) return;
    for (const [name, property] of all.flatMap((one) => [...one.properties])) {
      const known = properties.get(name);
      properties.set(name, known === undefined ? property : this.document.either(known, property));
    }
    const [first] = variants;
    if (variants.length === others.length)
      for (const name of first?.required ?? [])
        if (variants.every((one) => one.required.has(name))) required.add(name);
    this.report.assume(
      this.document.linesOf(schema),
      'What some variants have may be there.',
      `It has ${all.length === 1 ? 'a condition' : `${all.length} variants`}; an entity has one shape.`,
    );
  }

  /** Objects that are described where they are used get a name after it. */
  private addInline(within: Definition, property: string, schema: Schema): void {
    const plain = withoutNull(schema);
    const inline = typesOf(plain).includes('array') ? withoutNull(asSchema(plain['items'])) : plain;
    const short = blockName(singular(asMemberName(property, 'part')), 'Part');
    const isTaken = [...this.bySchema.values()].some(({ name }) => name === short);
    this.add(inline, isTaken ? within.name + short : short, false);
  }
}

/** Whether a schema may be that of an object; one that leads nowhere is told elsewhere. */
function mayBeObject(schema: Schema | null): boolean {
  const types = schema === null ? [] : typesOf(schema);
  return types.length === 0 || types.includes('object');
}

export const UNRESOLVED = 'It points at nothing in this document.';

/** The schemas under `$defs` (2020-12) and `definitions` (draft-07), wherever these stand. */
function namedSchemas(root: Schema): readonly (readonly [string, Schema])[] {
  return ['$defs', 'definitions'].flatMap((keyword) =>
    Object.entries(asSchema(root[keyword])).flatMap(([name, value]): (readonly [string, Schema])[] => {
      const schema = asSchema(value);
      return [[name, schema], ...namedSchemas(schema)];
    }),
  );
}

/** The schema without the alternative of being null, and without a composition of one. */
export function withoutNull(schema: Schema): Schema {
  for (const keyword of ['anyOf', 'oneOf', 'allOf']) {
    const alternatives = schema[keyword];
    if (!Array.isArray(alternatives) || 'properties' in schema) continue;
    const others = (alternatives as readonly Json[]).map(asSchema).filter((item) => !isNull(item));
    const [only] = others;
    if (others.length === 1 && only !== undefined) return withoutNull(only);
  }
  return schema;
}

const isNull = (schema: Schema): boolean =>
  schema['const'] === null || (allowsNull(schema) && typesOf(schema).length === 0);

/** Whether a value may be null. */
export function isNullable(schema: Schema): boolean {
  if (allowsNull(schema)) return true;
  return ['anyOf', 'oneOf'].some((keyword) => {
    const alternatives = schema[keyword];
    return Array.isArray(alternatives) && (alternatives as readonly Json[]).map(asSchema).some(isNull);
  });
}
