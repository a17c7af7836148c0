import {
  camelCase,
  pascalCase,
  plural,
  singular,
  type Attribute,
  type Declaration,
  type Entity,
  type Model,
  type Relationship,
  type UniqueRule,
} from '../../model/index.js';
import { parse, print } from '../../notation/index.js';
import { Report, type Intake } from '../report.js';
import { attributeOf, same } from './attributes.js';
import { isJoin, isReferredTo, ownColumns } from './joins.js';
import { readSqlSchema, tableNamed } from './readSchema.js';
import type { SqlForeignKey, SqlSchema, SqlTable } from './schema.js';

/**
 * Reads SQL DDL (MariaDB and PostgreSQL spellings) as a model: tables become entities, foreign keys
 * relationships, join tables pairings, what is removed with its parent is owned by it. Total: whatever cannot
 * be read is in the report.
 */
export function readSql(source: string, name: string): Intake {
  const report = new Report();
  const schema = readSqlSchema(source, report);
  const names = entityNames(schema);
  const builder = new ModelBuilder(schema, names, report);
  const model: Model = {
    name,
    description: null,
    comments: [],
    declarations: builder.declarations(),
    trailingComments: [],
  };
  const text = print(model);
  const { model: read, diagnostics } = parse(text);
  for (const { place, message } of diagnostics) {
    const line = text.split('\n')[place.line - 1] ?? '';
    report.assume(1, line, `Needs a look in the notation: ${message}`);
  }
  return {
    model: read,
    text,
    understood: report.understood,
    assumed: report.assumed,
    leftOut: report.leftOut,
  };
}

/** Entities are named by the singular of their table. */
function entityNames(schema: SqlSchema): ReadonlyMap<SqlTable, string> {
  const names = new Map<SqlTable, string>();
  const taken = new Set<string>();
  for (const table of schema.tables.values()) {
    const plain =
      pascalCase(singular(table.name.replace(/[^A-Za-z0-9]+/g, '_'))).replace(/^[^A-Z]+/, '') || 'Table';
    let name = plain;
    for (let number = 2; taken.has(name); number++) name = `${plain}${number}`;
    taken.add(name);
    names.set(table, name);
  }
  return names;
}

class ModelBuilder {
  private readonly owned = new Set<SqlTable>();
  private readonly roles = new Map<string, Set<string>>();

  constructor(
    private readonly schema: SqlSchema,
    private readonly names: ReadonlyMap<SqlTable, string>,
    private readonly report: Report,
  ) {}

  declarations(): Declaration[] {
    const tables = [...this.schema.tables.values()];
    const joins = tables.filter((table) => isJoin(this.schema, table));
    const values = joins.flatMap((table) => this.carriedValue(table));
    const entities = tables.filter((table) => !joins.includes(table)).map((table) => this.entity(table));
    const relationships = tables.flatMap((table) =>
      joins.includes(table) ? this.pairing(table) : this.references(table),
    );
    return [...values, ...entities, ...relationships];
  }

  private name(table: SqlTable): string {
    return this.names.get(table) ?? '';
  }

  private attributes(table: SqlTable, owner: string): Attribute[] {
    const names = new Set<string>();
    return ownColumns(table).flatMap((column) => {
      const attribute = attributeOf(this.schema, table, column, owner, this.report);
      if (attribute === null || names.has(attribute.name)) return [];
      names.add(attribute.name);
      return [attribute];
    });
  }

  private entity(table: SqlTable): Entity {
    const name = this.name(table);
    const attributes = this.attributes(table, name).flatMap((attribute) => this.withKey(table, attribute));
    this.report.understand(
      table.line,
      `CREATE TABLE ${table.name}`,
      `The entity ${name} with ${attributes.length} attributes.`,
    );
    for (const check of table.checks)
      if (check.meaning === null)
        this.report.leave(
          check.line,
          `CHECK (${check.text})`,
          'Only options and ranges of one column are read.',
        );
    return {
      kind: 'entity',
      id: name,
      name,
      description: table.comment,
      comments: [],
      attributes,
      uniques: this.uniqueRules(table, name, attributes),
    };
  }

  /** A counted id is what an entity has anyway; any other single key is written. */
  private withKey(table: SqlTable, attribute: Attribute): Attribute[] {
    const [primary] = table.primary;
    const column = table.columns.find(({ name }) => same(primary, name));
    if (table.primary.length !== 1 || column === undefined || camelCase(column.name) !== attribute.name)
      return this.notKey(attribute);
    const counted = column.auto || /serial/.test(column.type);
    const isInteger = attribute.type.kind === 'integer';
    if (attribute.name === 'id' && isInteger) {
      this.report.assume(
        column.line,
        `${table.name}.${column.name}`,
        'A counted id, which every entity has without saying so.',
      );
      return [];
    }
    const generated =
      (counted && isInteger) || (attribute.type.kind === 'uuid' && column.default?.kind === 'uuid');
    return [
      {
        ...attribute,
        key: { generated, within: null },
        generated,
        required: false,
        unique: false,
        defaultValue: null,
      },
    ];
  }

  /** An attribute called id that is not the key would be mistaken for it. */
  private notKey(attribute: Attribute): Attribute[] {
    return [
      attribute.name === 'id'
        ? { ...attribute, name: 'ownId', id: attribute.id.replace(/id$/, 'ownId') }
        : attribute,
    ];
  }

  private uniqueRules(table: SqlTable, entity: string, attributes: readonly Attribute[]): UniqueRule[] {
    const names = new Map(attributes.map(({ name }) => [name, name]));
    for (const foreign of table.foreign)
      if (foreign.columns.length === 1) names.set(camelCase(foreign.columns[0] ?? ''), roleFrom(foreign));
    const rules = [...table.uniques, ...(table.primary.length > 1 ? [table.primary] : [])].filter(
      (columns) => columns.length > 1,
    );
    return rules.flatMap((columns): UniqueRule[] => {
      const parts = columns.flatMap((column) => names.get(camelCase(column)) ?? []);
      if (parts.length !== columns.length) return [];
      return [
        { kind: 'unique', id: `${entity}(${parts.join()})`, names: parts, description: null, comments: [] },
      ];
    });
  }

  private references(table: SqlTable): Relationship[] {
    return table.foreign.flatMap((foreign) => {
      const target = tableNamed(this.schema, foreign.table);
      if (target === undefined || foreign.columns.length !== 1) {
        const why =
          target === undefined
            ? `There is no table ${foreign.table}.`
            : 'Foreign keys of several columns are not read.';
        this.report.leave(foreign.line, `FOREIGN KEY (${foreign.columns.join(', ')})`, why);
        return [];
      }
      return [this.relationship(table, foreign, target)];
    });
  }

  private relationship(table: SqlTable, foreign: SqlForeignKey, target: SqlTable): Relationship {
    const column = table.columns.find(({ name }) => same(foreign.columns[0], name));
    const required = column?.notNull === true || table.primary.some((name) => same(foreign.columns[0], name));
    const unique = [...table.uniques, table.primary].some(
      (names) => names.length === 1 && same(names[0], foreign.columns[0] ?? ''),
    );
    const shared = { description: column?.comment ?? null, comments: [] };
    const owns =
      foreign.onDelete === 'cascade' &&
      required &&
      target !== table &&
      !this.owned.has(table) &&
      !(unique && isReferredTo(this.schema, table));
    return owns
      ? this.ownership(table, foreign, target, unique, shared)
      : this.reference(table, foreign, target, { required, unique }, shared);
  }

  private ownership(
    table: SqlTable,
    foreign: SqlForeignKey,
    target: SqlTable,
    unique: boolean,
    shared: { description: string | null; comments: readonly string[] },
  ): Relationship {
    const [from, to] = [this.name(target), this.name(table)];
    this.owned.add(table);
    const role = this.freeRole(from, unique ? camelCase(to) : plural(camelCase(to)));
    const back = roleFrom(foreign);
    const cardinality = unique ? 'optional' : 'many';
    this.report.assume(
      foreign.line,
      `${table.name}.${foreign.columns.join()} ON DELETE CASCADE`,
      `A ${to} exists only within its ${from}: it is owned.`,
    );
    return {
      kind: 'owns',
      id: `${from}>${to}:${role}`,
      from,
      to,
      role,
      back,
      onRemove: null,
      cardinality,
      ...shared,
    };
  }

  private reference(
    table: SqlTable,
    foreign: SqlForeignKey,
    target: SqlTable,
    { required, unique }: { readonly required: boolean; readonly unique: boolean },
    shared: { description: string | null; comments: readonly string[] },
  ): Relationship {
    const [from, to] = [this.name(table), this.name(target)];
    const role = this.freeRole(from, roleFrom(foreign));
    const several = table.foreign.filter(({ table: name }) => same(name, foreign.table)).length > 1;
    const back = this.freeRole(to, several ? camelCase(`${role}_${plural(from)}`) : plural(camelCase(from)));
    const onRemove =
      foreign.onDelete === 'cascade'
        ? 'cascade'
        : foreign.onDelete === 'set null' && !required
          ? 'detach'
          : null;
    this.report.understand(
      foreign.line,
      `${table.name}.${foreign.columns.join()}`,
      `A ${from} refers to ${required ? 'one' : 'an optional'} ${to} as ${role}.`,
    );
    return {
      kind: 'refers',
      id: `${from}>${to}:${role}`,
      from,
      to,
      role,
      back,
      onRemove,
      cardinality: required ? 'one' : 'optional',
      fixed: false,
      unique,
      ...shared,
    };
  }

  private carriedValue(table: SqlTable): Declaration[] {
    const name = this.name(table);
    const attributes = this.attributes(table, name)
      .filter((attribute) => attribute.name !== 'id')
      .map((attribute) => ({
        ...attribute,
        unique: false,
        generated: false,
        touched: false,
        writeOnly: false,
      }));
    if (attributes.length === 0) return [];
    return [{ kind: 'value', id: name, name, description: table.comment, comments: [], attributes }];
  }

  private pairing(table: SqlTable): Relationship[] {
    const [first, second] = table.foreign;
    const [a, b] = [first, second].map((foreign) =>
      foreign === undefined ? undefined : tableNamed(this.schema, foreign.table),
    );
    if (first === undefined || second === undefined || a === undefined || b === undefined) return [];
    const [from, to] = [this.name(a), this.name(b)];
    const role = this.freeRole(from, plural(roleFrom(second)));
    const back = this.freeRole(to, plural(roleFrom(first)));
    const carries = ownColumns(table).some(({ name }) => !same('id', name));
    this.report.understand(
      table.line,
      `CREATE TABLE ${table.name}`,
      `${from} pairs with many ${to}${carries ? `, carrying ${this.name(table)}` : ''}.`,
    );
    return [
      {
        kind: 'pairs',
        id: `${from}>${to}:${role}`,
        from,
        to,
        role,
        back,
        onRemove: null,
        cardinality: 'many',
        carrying: carries ? this.name(table) : null,
        description: table.comment,
        comments: [],
      },
    ];
  }

  /** A role that nothing else of the entity is called. */
  private freeRole(entity: string, wanted: string): string {
    const table = [...this.names].find(([, name]) => name === entity)?.[0];
    const taken = this.roles.get(entity) ?? new Set(table?.columns.map(({ name }) => camelCase(name)));
    this.roles.set(entity, taken);
    let role = wanted;
    for (let number = 2; taken.has(role); number++) role = `${wanted}${number}`;
    taken.add(role);
    return role;
  }
}

/** `route_id` is the role route; `harbour_code`, which refers to `code`, is harbour. */
function roleFrom({ columns, references, table }: SqlForeignKey): string {
  const column = columns[0] ?? '';
  const key = references[0] ?? 'id';
  const plain = column.replace(new RegExp(`_?(${escapeForRegExp(key)}|id|fk)$`, 'i'), '');
  return camelCase(plain === '' ? singular(table) : plain) || 'other';
}

const escapeForRegExp = (text: string): string => text.replace(/[^A-Za-z0-9_]/g, '\\$&');
