import {
  camelCase,
  plural,
  withArticle,
  type ModelEdit,
  type PairsWith,
  type Relationship,
} from '../../model/index.js';
import { asMemberName, counted } from '../build.js';
import type { SourceLines } from '../lines.js';
import { assumed, instead, type Report } from '../report.js';
import { isNeeded, isUnique, ownColumns, targetOf } from './joins.js';
import { roleFrom } from './names.js';
import { ownersOf } from './owners.js';
import { columnNamed, same, type SqlForeignKey, type SqlSchema, type SqlTable } from './schema.js';

/** Makes relationships of foreign keys, and gives out their roles. */
export class RelationshipBuilder {
  /** What each foreign key that was read is called. */
  readonly rolesOf = new Map<SqlForeignKey, string>();
  /** The statement that each foreign key became. */
  readonly statementOf = new Map<SqlForeignKey, string>();
  /** The pairing that each join table became. */
  readonly pairings = new Map<SqlTable, PairsWith>();
  private readonly owners: ReadonlyMap<SqlTable, SqlForeignKey>;
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

  private name(table: SqlTable): string {
    return this.names.get(table) ?? '';
  }

  /** Asks once whether what is referred to lists what refers to it. */
  askForWaysBack(): void {
    const [first] = this.backLines;
    if (first === undefined) return;
    this.report.ask(
      first,
      'Can what is referred to list what refers to it?',
      `${counted(this.backs.length, 'reference')} of the source ${this.backs.length === 1 ? 'names' : 'name'} no way back; each one named adds a list.`,
      [assumed('yes'), instead('no', ...this.backs)],
    );
  }

  /** What the foreign keys of a table are. */
  references(table: SqlTable): Relationship[] {
    return table.foreign.flatMap((foreign) => {
      const target = targetOf(this.schema, foreign);
      if (target === undefined) {
        const { name } = foreign.table;
        const own = ownColumns(this.schema, table);
        const isOwn = foreign.columns.every((column) => own.some((one) => same(one.name, column)));
        const what =
          this.schema.table(foreign.table) === undefined
            ? `There is no table ${name}`
            : `It does not refer to the whole key of ${name}`;
        const why = isOwn ? `${what}; its columns are attributes.` : `${what}.`;
        this.report.leave(foreign.lines, `${table.name} FOREIGN KEY (${foreign.columns.join(', ')})`, why);
        this.report.tally('foreign keys', null);
        return [];
      }
      const relationship = this.relationship(table, foreign, target);
      this.statementOf.set(foreign, relationship.id);
      this.report.tally('foreign keys', relationship.id);
      return [relationship];
    });
  }

  private relationship(table: SqlTable, foreign: SqlForeignKey, target: SqlTable): Relationship {
    const column = columnNamed(table, foreign.columns[0] ?? null);
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
    const role = this.freeRole(
      from,
      unique ? camelCase(to) : plural(camelCase(to)),
      roleFrom(foreign),
      unique ? to : plural(to),
    );
    const back = this.freeRole(to, roleFrom(foreign), roleFrom(foreign), from);
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
      id,
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
    const role = this.freeRole(from, roleFrom(foreign), roleFrom(foreign), to);
    this.rolesOf.set(foreign, role);
    const several = table.foreign.filter((one) => targetOf(this.schema, one) === target).length > 1;
    const back = this.freeRole(
      to,
      several ? camelCase(`${role}_${plural(from)}`) : plural(camelCase(from)),
      role,
      plural(from),
    );
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

  /** What a join table is: a pairing of the two that it refers to. */
  pairing(table: SqlTable): Relationship[] {
    const [first, second] = table.foreign;
    const [a, b] = [first, second].map((foreign) =>
      foreign === undefined ? undefined : targetOf(this.schema, foreign),
    );
    if (first === undefined || second === undefined || a === undefined || b === undefined) return [];
    const name = this.name(table);
    const [from, to] = [this.name(a), this.name(b)];
    const role = this.freeRole(from, plural(roleFrom(second)), name, plural(roleFrom(second)));
    const back = this.freeRole(to, plural(roleFrom(first)), name, plural(roleFrom(first)));
    const carries = ownColumns(this.schema, table).some(({ name }) => !same('id', name));
    const id = `${from}>${to}:${role}`;
    this.report.understand(id, table.lines, 'its key is two references');
    this.report.tally('tables', id);
    for (const foreign of [first, second]) {
      this.statementOf.set(foreign, id);
      this.report.tally('foreign keys', id);
    }
    if (table.primary !== null) this.report.tally('keys', id);
    const pairs: PairsWith = {
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
    };
    this.pairings.set(table, pairs);
    return [pairs];
  }

  /** A role that nothing else of the entity is called: where it is taken, more words are said. */
  private freeRole(entity: string, wanted: string, ...moreWords: readonly string[]): string {
    const table = this.tableOf.get(entity);
    const taken =
      this.roles.get(entity) ??
      new Set(
        table === undefined
          ? []
          : ownColumns(this.schema, table).map(({ name }) => asMemberName(name, 'column')),
      );
    this.roles.set(entity, taken);
    const said = taken.has(wanted) ? camelCase(moreWords.join('_')) : wanted;
    let role = said;
    for (let number = 2; taken.has(role); number++) role = `${said}${number}`;
    taken.add(role);
    return role;
  }
}
