import type { Attribute, Declaration, Entity, UniqueRule } from '../../model/index.js';
import { asMemberName, memberBeside, newEntity, newValue } from '../build.js';
import type { IntakeRecord } from '../intakeRecord.js';
import type { Report } from '../report.js';
import { entityNames } from './names.js';
import { columnAttribute, defaultText } from './attributes.js';
import { areSame, isJoin, keyColumns, keyWithin, ownColumns } from './joins.js';
import { RelationshipBuilder } from './relationshipBuilder.js';
import { RowReader } from './rowReader.js';
import { withSayable } from './sayable.js';
import { columnNamed, same, type SqlColumn, type SqlKey, type SqlSchema, type SqlTable } from './schema.js';
import { ChecksSaid } from './withChecks.js';

/** What an id is called that is no key. */
const OWN_ID = 'ownId';

/** Makes the declarations of a model from what DDL declares, and accounts for each part of it once. */
export class ModelBuilder {
  private readonly names: ReadonlyMap<SqlTable, string>;
  private readonly relationships: RelationshipBuilder;
  /** What the attribute of each column is called. */
  private readonly members = new Map<SqlColumn, string>();
  private readonly columns = new Map<string, SqlColumn>();

  /** Columns of which some row has a number below 1. */
  private readonly belowOne: ReadonlySet<SqlColumn | null>;

  constructor(
    private readonly schema: SqlSchema,
    private readonly report: Report,
  ) {
    this.belowOne = new Set(
      schema.rows.flatMap(({ columns, cells }) =>
        columns.filter((column, at) => {
          const cell = cells[at] ?? null;
          return column !== null && !schema.isCounted(column, cell) && Number(cell ?? 1) < 1;
        }),
      ),
    );
    this.names = entityNames(schema);
    this.relationships = new RelationshipBuilder(schema, this.names, report);
  }

  declarations(): Declaration[] {
    const { tables } = this.schema;
    const joins = tables.filter((table) => isJoin(this.schema, table));
    // What columns call their roles has its name before ways back, which nothing names.
    const pairings = new Map(joins.map((table) => [table, this.relationships.pairing(table)]));
    const values = joins.flatMap((table) => this.carriedValue(table));
    const relationships = tables.flatMap(
      (table) => pairings.get(table) ?? this.relationships.references(table),
    );
    this.relationships.askForWaysBack();
    const isJoined = new Set(joins);
    const entities = tables.filter((table) => !isJoined.has(table)).map((table) => this.entity(table));
    return [...values, ...entities, ...relationships];
  }

  /** The rows of the source as records of what was declared, which is asked for first. */
  records(now: number | null): readonly IntakeRecord[] {
    const { schema, names, members, relationships, report } = this;
    return new RowReader(schema, { names, members, relationships }, now, report).records();
  }

  private name(table: SqlTable): string {
    return this.names.get(table) ?? '';
  }

  /** The attributes of a table, each column accounted for. */
  private attributes(table: SqlTable, owner: string): Attribute[] {
    const names = new Set<string>();
    const checks = new ChecksSaid();
    const own = new Set(ownColumns(this.schema, table));
    for (const column of table.columns) if (!own.has(column)) this.accountForReferring(table, column);
    const all = [...own].flatMap((column) => {
      const attribute = columnAttribute(this.schema, table, column, owner, this.report, checks);
      if (attribute === null) {
        this.report.tally('columns', null);
        if (column.default !== null) this.report.tally('defaults', null);
        return [];
      }
      const name = memberBeside((one) => names.has(one), attribute.name);
      names.add(name);
      const id = `${owner}.${name}`;
      this.members.set(column, name);
      this.columns.set(id, column);
      this.report.tally('columns', id);
      if (name === attribute.name) return [{ column, attribute }];
      const why = `${owner} has something called ${attribute.name} already.`;
      this.report.assume(column.lines, `${column.name} is called ${name}.`, why);
      this.report.understand(id, column.lines, `${column.name}, beside ${attribute.name}`);
      return [{ column, attribute: { ...attribute, id, name } }];
    });
    this.accountForChecks(table, checks);
    return withSayable(table, all, this.report);
  }

  /** A column that is a part of a reference: the relationship says it. What it would be by default has no words. */
  private accountForReferring(table: SqlTable, column: SqlColumn): void {
    const statements = table.foreign.flatMap((foreign) =>
      foreign.columns.some((name) => same(name, column.name))
        ? (this.relationships.statementOf.get(foreign) ?? [])
        : [],
    );
    this.report.tally('columns', statements[0] ?? null);
    if (column.default === null) return;
    this.report.tally('defaults', null);
    this.report.leave(
      column.lines,
      `${table.name}.${column.name} DEFAULT ${defaultText(column.default)}`,
      'What is referred to has no default.',
    );
  }

  private accountForChecks(table: SqlTable, { by, unsaid }: ChecksSaid): void {
    for (const check of table.checks) {
      const statement = by.get(check);
      const isSaid = statement !== undefined && !unsaid.has(check);
      this.report.tally('checks', isSaid ? statement : null);
      if (!isSaid)
        this.report.leave(
          check.lines,
          `${table.name} CHECK (${check.text})`,
          'A model says options and ranges of one attribute each.',
        );
    }
  }

  private entity(table: SqlTable): Entity {
    const name = this.name(table);
    const scope = keyWithin(this.schema, table);
    const attributes = this.attributes(table, name).flatMap((attribute) =>
      this.withKey(table, scope, attribute),
    );
    this.report.understand(name, table.lines, tableReason(table));
    this.report.tally('tables', name);
    const uniques = this.uniqueRules(table, name, attributes);
    return newEntity(name, attributes, { description: table.comment, uniques });
  }

  /** A counted id is what an entity has anyway; any other single key is written. */
  private withKey(table: SqlTable, scope: ReturnType<typeof keyWithin>, attribute: Attribute): Attribute[] {
    const within = scope === null ? null : (this.relationships.rolesOf.get(scope.foreign) ?? null);
    const key = keyColumns(table);
    const primary = scope?.column ?? (key.length === 1 ? key[0] : undefined);
    const column = columnNamed(table, primary ?? null);
    if (column === undefined || asMemberName(column.name, 'column') !== attribute.name)
      return this.notKey(attribute);
    const isInteger = attribute.type.kind === 'integer';
    // Every entity without a key has a counted id from 1, so it need not be said.
    if (attribute.name === 'id' && isInteger && within === null && !this.belowOne.has(column)) {
      this.report.becomes(attribute.id, this.name(table));
      return [];
    }
    const generated =
      (column.auto && isInteger) || (attribute.type.kind === 'uuid' && column.default?.kind === 'uuid');
    return [
      {
        ...attribute,
        key: { generated, within },
        generated,
        required: false,
        unique: false,
        defaultValue: null,
      },
    ];
  }

  /** An attribute called id that is not the key would be mistaken for it. */
  private notKey(attribute: Attribute): Attribute[] {
    if (attribute.name !== 'id') return [attribute];
    const id = attribute.id.replace(/id$/, OWN_ID);
    this.report.becomes(attribute.id, id);
    const column = this.columns.get(attribute.id);
    if (column !== undefined) this.members.set(column, OWN_ID);
    return [{ ...attribute, name: OWN_ID, id }];
  }

  /** Every rule over several columns; those over one are said by it. The key counts, too. */
  private uniqueRules(table: SqlTable, entity: string, attributes: readonly Attribute[]): UniqueRule[] {
    const names = new Map(attributes.map(({ name }) => [name, name]));
    // An id that is not the key has another name.
    if (names.has(OWN_ID)) names.set('id', OWN_ID);
    const rules: UniqueRule[] = [];
    if (table.primary !== null) {
      const isSaid = table.primary.columns.length === 1 || keyWithin(this.schema, table) !== null;
      const said = isSaid ? entity : this.uniqueRule(table, table.primary, entity, names, rules);
      this.report.tally('keys', said);
    }
    for (const unique of table.uniques)
      this.report.tally('unique rules', this.uniqueRule(table, unique, entity, names, rules));
    return rules;
  }

  /** The statement that says that columns are unique; `null` where none can, which is told. */
  private uniqueRule(
    table: SqlTable,
    { columns, lines }: SqlKey,
    entity: string,
    names: ReadonlyMap<string, string>,
    rules: UniqueRule[],
  ): string | null {
    const foreign = table.foreign.find((one) => areSame(one.columns, columns));
    const statement = foreign === undefined ? undefined : this.relationships.statementOf.get(foreign);
    if (statement !== undefined) return statement;
    if (areSame(columns, keyColumns(table)) && table.primary?.columns.length === 1) return entity;
    const parts = this.partsOf(table, columns, names);
    const [only] = parts ?? [];
    if (parts?.length === 1 && only !== undefined && names.has(only)) return `${entity}.${only}`;
    if (parts === null || parts.length < 2) {
      this.report.leave(
        lines,
        `${table.name} UNIQUE (${columns.join(', ')})`,
        'One of its columns is not in the model.',
      );
      return null;
    }
    const id = `${entity}(${parts.join()})`;
    if (rules.some((rule) => rule.id === id)) return id;
    this.report.understand(id, lines, `unique over ${parts.length} columns`);
    rules.push({ kind: 'unique', id, names: parts, description: null, comments: [] });
    return id;
  }

  /** The attributes and roles that columns are; `null` where one is neither. */
  private partsOf(
    table: SqlTable,
    columns: readonly string[],
    attributes: ReadonlyMap<string, string>,
  ): readonly string[] | null {
    const parts = new Set<string>();
    for (const column of columns) {
      const foreign = table.foreign.find(
        (one) => one.columns.some((name) => same(name, column)) && this.relationships.rolesOf.has(one),
      );
      const isWhole = foreign?.columns.every((name) => columns.some((one) => same(one, name))) === true;
      const part = isWhole
        ? this.relationships.rolesOf.get(foreign)
        : attributes.get(asMemberName(column, 'column'));
      if (part === undefined) return null;
      parts.add(part);
    }
    return [...parts];
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
        computed: null,
      }));
    for (const unique of table.uniques) this.accountForPairUnique(table, unique);
    if (attributes.length === 0) return [];
    this.report.understand(name, table.lines, 'columns of a pair of its own');
    return [newValue(name, attributes, table.comment)];
  }

  /** Two sides are paired once, which need not be said; what else is unique of pairs cannot be. */
  private accountForPairUnique({ name, foreign }: SqlTable, { columns, lines }: SqlKey): void {
    const [first] = foreign;
    const isSaid = areSame(
      foreign.flatMap((one) => one.columns),
      columns,
    );
    const statement = first === undefined ? undefined : this.relationships.statementOf.get(first);
    this.report.tally('unique rules', isSaid ? (statement ?? null) : null);
    if (!isSaid)
      this.report.leave(lines, `${name} UNIQUE (${columns.join(', ')})`, 'Pairs have no rules of their own.');
  }
}

/** What made a table an entity. */
function tableReason(table: SqlTable): string {
  const [key, more] = keyColumns(table);
  if (key === undefined) return 'a table without a key';
  if (more !== undefined) return 'a table with a key of several columns';
  const column = columnNamed(table, key);
  if (table.foreign.some(({ columns }) => columns.length === 1 && same(key, columns[0] ?? '')))
    return 'its key is the reference to its owner';
  return column?.auto === true ? 'a key the server counts' : 'a table with a key of its own';
}
