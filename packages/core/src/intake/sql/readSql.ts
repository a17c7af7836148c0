import {
  camelCase,
  plural,
  withArticle,
  type Attribute,
  type Declaration,
  type Entity,
  type ModelEdit,
  type Relationship,
  type UniqueRule,
} from '../../model/index.js';
import { counted, newEntity, newValue } from '../build.js';
import { assumed, instead, Report, type Intake, type IntakeOptions, type SourceLines } from '../report.js';
import { finishIntake } from '../finishIntake.js';
import { entityNames, roleFrom } from './names.js';
import { columnAttribute, same } from './attributes.js';
import { areSame, isJoin, isNeeded, isUnique, keyWithin, ownColumns, targetOf } from './joins.js';
import { ownersOf } from './owners.js';
import { readSqlSchema, tableNamed } from './readSchema.js';
import { withSayable } from './sayable.js';
import type { SqlForeignKey, SqlSchema, SqlTable } from './schema.js';

/**
 * Reads SQL DDL (MariaDB and PostgreSQL spellings) as a model: tables become entities, foreign keys
 * relationships, join tables pairings, what is removed with its parent is owned by it. Total: whatever cannot
 * be read is in the report.
 */
export function readSql(source: string, name: string, { progress }: IntakeOptions = {}): Intake {
  const report = new Report();
  const schema = readSqlSchema(source, report, (done) => progress?.(done * 0.6));
  if (schema.tables.size === 0) report.problem = 'No CREATE TABLE was found.';
  const builder = new ModelBuilder(schema, entityNames(schema), report);
  const declarations = builder.declarations();
  progress?.(0.9);
  return finishIntake(name, declarations, report);
}

class ModelBuilder {
  private readonly owners: ReadonlyMap<SqlTable, SqlForeignKey>;
  /** What each foreign key that was read is called. */
  private readonly rolesOf = new Map<SqlForeignKey, string>();
  private readonly tableOf: ReadonlyMap<string, SqlTable>;
  private readonly roles = new Map<string, Set<string>>();
  /** The ways back that no column says, and where the references stand. */
  private readonly backs: ModelEdit[] = [];
  private readonly backLines: SourceLines[] = [];

  constructor(
    private readonly schema: SqlSchema,
    private readonly names: ReadonlyMap<SqlTable, string>,
    private readonly report: Report,
  ) {
    this.tableOf = new Map([...names].map(([table, name]) => [name, table]));
    this.owners = ownersOf(schema);
  }

  declarations(): Declaration[] {
    const tables = [...this.schema.tables.values()];
    const joins = tables.filter((table) => isJoin(this.schema, table));
    const values = joins.flatMap((table) => this.carriedValue(table));
    // What columns call their roles has its name before ways back, which nothing names.
    const pairings = new Map(joins.map((table) => [table, this.pairing(table)]));
    const relationships = tables.flatMap((table) => pairings.get(table) ?? this.references(table));
    this.askForWaysBack();
    const entities = tables.filter((table) => !joins.includes(table)).map((table) => this.entity(table));
    return [...values, ...entities, ...relationships];
  }

  private askForWaysBack(): void {
    const [first] = this.backLines;
    if (first === undefined) return;
    this.report.ask(
      first,
      'Can what is referred to list what refers to it?',
      `${counted(this.backs.length, 'reference')} of the source ${this.backs.length === 1 ? 'names' : 'name'} no way back; each one named adds a list.`,
      [assumed('yes'), instead('no', ...this.backs)],
    );
  }

  private name(table: SqlTable): string {
    return this.names.get(table) ?? '';
  }

  private attributes(table: SqlTable, owner: string): Attribute[] {
    const names = new Set<string>();
    const all = ownColumns(table).flatMap((column) => {
      const attribute = columnAttribute(this.schema, table, column, owner, this.report);
      if (attribute === null) return [];
      if (names.has(attribute.name)) {
        this.report.leave(column.lines, column.name, `${owner} has an attribute ${attribute.name} already.`);
        return [];
      }
      names.add(attribute.name);
      return [{ column, attribute }];
    });
    return withSayable(table, all, this.report);
  }

  private entity(table: SqlTable): Entity {
    const name = this.name(table);
    const attributes = this.attributes(table, name).flatMap((attribute) => this.withKey(table, attribute));
    this.report.understand(name, table.lines, tableReason(table));
    for (const check of table.checks)
      if (check.meaning === null)
        this.report.leave(
          check.lines,
          `CHECK (${check.text})`,
          'Only options and ranges of one column are read.',
        );
    const uniques = this.uniqueRules(table, name, attributes);
    return newEntity(name, attributes, { description: table.comment, uniques });
  }

  /** A counted id is what an entity has anyway; any other single key is written. */
  private withKey(table: SqlTable, attribute: Attribute): Attribute[] {
    const scope = keyWithin(this.schema, table);
    const within = scope === null ? null : (this.rolesOf.get(scope.foreign) ?? null);
    const primary = scope?.column ?? (table.primary.length === 1 ? table.primary[0] : undefined);
    const column = table.columns.find(({ name }) => same(primary, name));
    if (column === undefined || camelCase(column.name) !== attribute.name) return this.notKey(attribute);
    const counted = column.auto || /serial/.test(column.type);
    const isInteger = attribute.type.kind === 'integer';
    // Every entity without a key has a counted id, so it need not be said.
    if (attribute.name === 'id' && isInteger && within === null) return [];
    const generated =
      (counted && isInteger) || (attribute.type.kind === 'uuid' && column.default?.kind === 'uuid');
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
    return [
      attribute.name === 'id'
        ? { ...attribute, name: 'ownId', id: attribute.id.replace(/id$/, 'ownId') }
        : attribute,
    ];
  }

  private uniqueRules(table: SqlTable, entity: string, attributes: readonly Attribute[]): UniqueRule[] {
    const names = new Map(attributes.map(({ name }) => [name, name]));
    const composite = table.primary.length > 1 && keyWithin(this.schema, table) === null;
    const rules = [...table.uniques, ...(composite ? [table.primary] : [])].filter(
      (columns) => columns.length > 1 && !table.foreign.some((foreign) => areSame(foreign.columns, columns)),
    );
    return rules.flatMap((columns): UniqueRule[] => {
      const parts = this.partsOf(table, columns, names);
      if (parts === null) return [];
      const id = `${entity}(${parts.join()})`;
      this.report.understand(id, table.lines, `unique over ${parts.length} columns`);
      return [{ kind: 'unique', id, names: parts, description: null, comments: [] }];
    });
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
        (one) => one.columns.some((name) => same(name, column)) && this.rolesOf.has(one),
      );
      const isWhole = foreign?.columns.every((name) => columns.some((one) => same(one, name))) === true;
      const part = isWhole ? this.rolesOf.get(foreign) : attributes.get(camelCase(column));
      if (part === undefined) return null;
      parts.add(part);
    }
    return [...parts];
  }

  private references(table: SqlTable): Relationship[] {
    return table.foreign.flatMap((foreign) => {
      const target = targetOf(this.schema, foreign);
      if (target === undefined) {
        const why =
          tableNamed(this.schema, foreign.table) === undefined
            ? `There is no table ${foreign.table}.`
            : `It does not refer to the whole key of ${foreign.table}.`;
        this.report.leave(foreign.lines, `FOREIGN KEY (${foreign.columns.join(', ')})`, why);
        return [];
      }
      return [this.relationship(table, foreign, target)];
    });
  }

  private relationship(table: SqlTable, foreign: SqlForeignKey, target: SqlTable): Relationship {
    const column = table.columns.find(({ name }) => same(foreign.columns[0], name));
    const required = isNeeded(table, foreign);
    const unique = isUnique(table, foreign);
    const shared = { description: column?.comment ?? null, comments: [] };
    return this.owners.get(table) === foreign
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
    const role = this.freeRole(from, unique ? camelCase(to) : plural(camelCase(to)));
    const back = roleFrom(foreign);
    this.rolesOf.set(foreign, back);
    const cardinality = unique ? 'optional' : 'many';
    const id = `${from}>${to}:${role}`;
    this.report.understand(id, foreign.lines, 'not null, on delete cascade');
    this.report.ask(
      foreign.lines,
      `Can ${withArticle(to)} exist without its ${from}?`,
      `${table.name}.${foreign.columns.join()} is never null, and its row goes with the other.`,
      [
        assumed('no, it is owned'),
        instead('yes, it refers to it', { kind: 'turn-around', relationship: id }),
      ],
    );
    return {
      kind: 'owns',
      id,
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
    this.rolesOf.set(foreign, role);
    const several = table.foreign.filter(({ table: name }) => same(name, foreign.table)).length > 1;
    const back = this.freeRole(to, several ? camelCase(`${role}_${plural(from)}`) : plural(camelCase(from)));
    const onRemove =
      foreign.onDelete === 'cascade'
        ? 'cascade'
        : foreign.onDelete === 'set null' && !required
          ? 'detach'
          : null;
    const id = `${from}>${to}:${role}`;
    const rule = foreign.onDelete === 'restrict' ? 'no rule on delete' : `on delete ${foreign.onDelete}`;
    this.report.understand(id, foreign.lines, `${required ? 'not null' : 'may be null'}, ${rule}`);
    this.backs.push({ kind: 'drop-way-back', relationship: id });
    this.backLines.push(foreign.lines);
    return {
      kind: 'refers',
      id,
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
        computed: null,
      }));
    if (attributes.length === 0) return [];
    this.report.understand(name, table.lines, 'columns of a pair of its own');
    return [newValue(name, attributes, table.comment)];
  }

  private pairing(table: SqlTable): Relationship[] {
    const [first, second] = table.foreign;
    const [a, b] = [first, second].map((foreign) =>
      foreign === undefined ? undefined : targetOf(this.schema, foreign),
    );
    if (first === undefined || second === undefined || a === undefined || b === undefined) return [];
    const [from, to] = [this.name(a), this.name(b)];
    const role = this.freeRole(from, plural(roleFrom(second)));
    const back = this.freeRole(to, plural(roleFrom(first)));
    const carries = ownColumns(table).some(({ name }) => !same('id', name));
    const id = `${from}>${to}:${role}`;
    this.report.understand(id, table.lines, 'its key is two references');
    return [
      {
        kind: 'pairs',
        id,
        from,
        to,
        role,
        back,
        // What goes with the one side, and keeps the other, guards that.
        onRemove: first.onDelete === 'cascade' && second.onDelete !== 'cascade' ? 'restrict' : null,
        cardinality: 'many',
        carrying: carries ? this.name(table) : null,
        description: table.comment,
        comments: [],
      },
    ];
  }

  /** A role that nothing else of the entity is called. */
  private freeRole(entity: string, wanted: string): string {
    const table = this.tableOf.get(entity);
    const taken = this.roles.get(entity) ?? new Set(table?.columns.map(({ name }) => camelCase(name)));
    this.roles.set(entity, taken);
    let role = wanted;
    for (let number = 2; taken.has(role); number++) role = `${wanted}${number}`;
    taken.add(role);
    return role;
  }
}

/** What made a table an entity. */
function tableReason(table: SqlTable): string {
  const [key] = table.primary;
  if (key === undefined) return 'a table without a key';
  if (table.primary.length > 1) return 'a table with a key of several columns';
  const column = table.columns.find(({ name }) => same(key, name));
  if (table.foreign.some(({ columns }) => columns.length === 1 && same(key, columns[0] ?? '')))
    return 'its key is the reference to its owner';
  return column?.auto === true || /serial/.test(column?.type ?? '')
    ? 'a key the server counts'
    : 'a table with a key of its own';
}
