import {
  compareText,
  entryOf,
  indexModel,
  onRemoveOf,
  ownerRoleOf,
  ownsItself,
  pascalCase,
  pointedEntity,
  pointingOf,
  roleOf,
  singular,
  snakeCase,
  storageOf,
  type Attribute,
  type Entity,
  type EntityStorage,
  type Model,
  type Owns,
  type PairsWith,
  type RefersTo,
} from '../../model/index.js';
import { columnOf, type ColumnFacts } from './columns.js';
import { computedSql } from './computed.js';
import type { Dialect } from './dialect.js';
import { commentOf, type CheckDraft, type ColumnDraft, type ForeignDraft, type TableDraft } from './draft.js';
import { columnName, Identifiers, tableName } from './names.js';

/** DraftedTables in an order in which each stands after what it refers to, with what they cannot say. */
export interface DraftedTables {
  readonly tables: readonly TableDraft[];
  readonly cannotSay: readonly string[];
}

const UNNAMED_LISTS = 'What lists of related records are called, and whether there are any, is not here.';

/** A model as tables: a table for each entity and each pairing. */
export function draftTables(model: Model, dialect: Dialect): DraftedTables {
  const builder = new Builder(model, dialect);
  const tables = inOrder(builder.tables());
  const lists = model.declarations.some(
    ({ kind }) => kind === 'owns' || kind === 'refers' || kind === 'pairs',
  );
  return { tables, cannotSay: [...(lists ? [UNNAMED_LISTS] : []), ...builder.unsaid] };
}

/** A table is due once everything it refers to is there; where all wait for each other, the first is. */
function inOrder(tables: readonly TableDraft[]): readonly TableDraft[] {
  const left = [...tables];
  const done = new Set<string>();
  const ordered: TableDraft[] = [];
  while (left.length > 0) {
    const ready = left.findIndex(({ name, foreign }) =>
      foreign.every(({ table }) => table === name || done.has(table)),
    );
    const [next] = left.splice(Math.max(0, ready), 1);
    if (next === undefined) break;
    done.add(next.name);
    ordered.push(next);
  }
  return ordered;
}

/** A column of a key, as those that refer to it repeat it. */
type KeyColumn = Pick<ColumnDraft, 'name' | 'type'>;

/** The columns by which a table refers to another. */
interface Reference {
  readonly columns: readonly ColumnDraft[];
  readonly foreign: ForeignDraft;
}

/** Whether a row goes with what it refers to, as those of an owner do. */
const isOwning = ({ columns, foreign }: Reference): boolean =>
  foreign.onDelete === 'cascade' && columns.every(({ isRequired }) => isRequired);

class Builder {
  readonly unsaid: string[] = [];
  private readonly names = new Map<string, string>();
  private readonly columns = new Map<string, Identifiers>();
  private readonly references = new Map<string, Reference>();
  private readonly own = new Map<string, ReadonlyMap<string, ColumnFacts>>();
  private readonly tableNames: Identifiers;

  constructor(
    private readonly model: Model,
    private readonly dialect: Dialect,
  ) {
    this.tableNames = new Identifiers(dialect);
    for (const { name } of this.entities()) this.names.set(name, this.tableNames.free(tableName(name)));
  }

  private entities(): readonly Entity[] {
    return this.model.declarations.filter((one): one is Entity => one.kind === 'entity');
  }

  tables(): readonly TableDraft[] {
    const pairs = this.model.declarations.filter((one): one is PairsWith => one.kind === 'pairs');
    return [
      ...this.entities().map((entity) => this.table(entity)),
      ...pairs.map((pairing) => this.pairTable(pairing)),
    ];
  }

  private storage(entity: string): EntityStorage {
    const found = storageOf(this.model).byId.get(indexModel(this.model).entities.get(entity)?.id ?? '');
    if (found === undefined) throw new Error(`There is no entity ${entity}.`);
    return found;
  }

  private tableOf(entity: string): string {
    return this.names.get(entity) ?? entity;
  }

  private free(table: string, column: string): string {
    return entryOf(this.columns, table, () => new Identifiers(this.dialect)).free(column);
  }

  /** The columns of the attributes of an entity, by their names. */
  private ownColumns(entity: string): ReadonlyMap<string, ColumnFacts> {
    const known = this.own.get(entity);
    if (known !== undefined) return known;
    const { attributes, computed, key, singleton } = this.storage(entity);
    const table = this.tableOf(entity);
    const names = new Map(
      [...attributes, ...computed].map(({ name }) => [name, this.free(table, columnName(name))]),
    );
    const found = new Map<string, ColumnFacts>();
    const all = [...attributes, ...computed].sort(
      (one, other) => this.position(entity, one) - this.position(entity, other),
    );
    for (const attribute of all) {
      const sql = computedSql(this.dialect, attribute, attributes, (name) => names.get(name) ?? name);
      if (attribute.computed !== null && sql === null) {
        this.unsaid.push(`${entity}.${attribute.name} is computed, and has no column.`);
        continue;
      }
      const isKey = attribute === key && !singleton;
      const facts = columnOf(this.dialect, attribute, names.get(attribute.name) ?? '', isKey, sql);
      for (const what of facts.unsaid) this.unsaid.push(`${entity}.${attribute.name} ${what}.`);
      found.set(attribute.name, facts);
    }
    this.own.set(entity, found);
    return found;
  }

  /** An id that nobody declared comes first. */
  private position(entity: string, { id }: Attribute): number {
    const { entity: declared } = this.storage(entity);
    return declared.attributes.findIndex((one) => one.id === id);
  }

  /** What records of an entity are told apart by: what fills a slot has its owner's. */
  private primary(entity: string): readonly KeyColumn[] {
    const { key, singleton, owner } = this.storage(entity);
    const role = key.key?.within ?? null;
    const own = this.ownColumns(entity).get(key.name);
    const scope = singleton
      ? owner
      : role === null
        ? null
        : this.pointing(entity).find((one) => this.roleFrom(one) === role);
    const above = scope == null ? [] : this.reference(entity, scope).columns;
    return [...above, ...(singleton || own === undefined ? [] : [own.column])];
  }

  private pointing(entity: string): readonly (Owns | RefersTo)[] {
    return pointingOf(this.storage(entity));
  }

  private roleFrom(relationship: Owns | RefersTo): string {
    return relationship.kind === 'owns' ? ownerRoleOf(relationship) : roleOf(relationship);
  }

  /** The columns by which an entity refers to another, or to its owner. */
  private reference(entity: string, relationship: Owns | RefersTo): Reference {
    const known = this.references.get(relationship.id);
    if (known !== undefined) return known;
    const isRequired =
      relationship.kind === 'owns' ? !ownsItself(relationship) : relationship.cardinality === 'one';
    const onRemove = onRemoveOf(relationship);
    const found = this.refer(this.tableOf(entity), this.roleFrom(relationship), pointedEntity(relationship), {
      isRequired,
      onDelete: onRemove === 'cascade' ? 'cascade' : onRemove === 'detach' && !isRequired ? 'set null' : null,
      comment: relationship.kind === 'refers' ? commentOf(relationship) : null,
    });
    this.references.set(relationship.id, found);
    return found;
  }

  private refer(
    table: string,
    role: string,
    to: string,
    {
      isRequired,
      onDelete,
      comment,
    }: Pick<ForeignDraft, 'onDelete'> & Pick<ColumnDraft, 'isRequired' | 'comment'>,
  ): Reference {
    const key = this.primary(to);
    const columns = key.map(({ name, type }): ColumnDraft => {
      const column = this.free(table, `${snakeCase(role)}_${name}`);
      return { name: column, type, isRequired, default: null, made: null, computed: null, comment };
    });
    return {
      columns,
      foreign: {
        columns: columns.map(({ name }) => name),
        table: this.tableOf(to),
        references: key.map(({ name }) => name),
        onDelete,
      },
    };
  }

  private table(entity: Entity): TableDraft {
    const storage = this.storage(entity.name);
    const own = [...this.ownColumns(entity.name).values()];
    const references = this.pointing(entity.name)
      .map((one) => this.reference(entity.name, one))
      .sort((one, other) => Number(isOwning(other)) - Number(isOwning(one)));
    const primary = this.primary(entity.name).map(({ name }) => name);
    this.noteRelationships(storage);
    return {
      name: this.tableOf(entity.name),
      comment: commentOf(entity),
      columns: [...own.map(({ column }) => column), ...references.flatMap(({ columns }) => columns)],
      primary,
      uniques: this.uniques(storage, primary),
      checks: own.flatMap(({ checks }) => checks),
      foreign: references.map(({ foreign }) => foreign),
    };
  }

  private uniques(
    { entity, uniques, keyConstraint, singleConstraint, attributes }: EntityStorage,
    primary: readonly string[],
  ): readonly (readonly string[])[] {
    const own = this.ownColumns(entity.name);
    const all = uniques
      .filter((one) => one !== keyConstraint && one !== singleConstraint)
      .map(({ parts }) =>
        parts.flatMap((part) => {
          const attribute = attributes.find(({ id }) => id === part);
          if (attribute !== undefined) return own.get(attribute.name)?.column.name ?? [];
          const relationship = this.pointing(entity.name).find(({ id }) => id === part);
          return relationship === undefined ? [] : this.reference(entity.name, relationship).foreign.columns;
        }),
      );
    const sorted = all
      .filter((columns) => columns.length > 0 && columns.join('\n') !== primary.join('\n'))
      .sort((one, other) => compareText(one.join('\n'), other.join('\n')));
    return [...new Map(sorted.map((columns) => [columns.join('\n'), columns])).values()];
  }

  /** What foreign keys cannot say of what records point at. */
  private noteRelationships({ entity, owner, references, singleConstraint }: EntityStorage): void {
    if (owner?.cardinality === 'one')
      this.unsaid.push(`Each ${owner.from} has its ${entity.name} from the start.`);
    if (singleConstraint !== null) this.unsaid.push(`There is one ${entity.name}.`);
    for (const reference of references) {
      if (reference.fixed) this.unsaid.push(`${entity.name}.${roleOf(reference)} never changes.`);
      if (onRemoveOf(reference) === 'detach' && reference.cardinality === 'one')
        this.unsaid.push(`${entity.name}.${roleOf(reference)} is let go where what it refers to is removed.`);
    }
    if (owner !== null && !ownsItself(owner)) return;
    const owning = references.find(
      ({ cardinality, onRemove, to }) =>
        cardinality === 'one' && onRemove === 'cascade' && to !== entity.name,
    );
    if (owning !== undefined)
      this.unsaid.push(`${entity.name}.${roleOf(owning)} is no owner, and the same as one here.`);
  }

  private pairTable(pairing: PairsWith): TableDraft {
    const { from, to, carrying, back, description } = pairing;
    const role = roleOf(pairing);
    const value = carrying === null ? undefined : indexModel(this.model).values.get(carrying);
    const isBare = carrying === null || value === undefined || value.attributes.length === 0;
    const wanted = isBare
      ? [`${snakeCase(from)}_${snakeCase(role)}`]
      : [tableName(carrying), tableName(pascalCase(`${from}_${role}`))];
    const name = this.tableNames.free(...wanted);
    if (isBare && carrying !== null)
      this.unsaid.push(`${from}.${role} carries a ${carrying}, which holds nothing.`);
    if (!isBare && name !== wanted[0])
      this.unsaid.push(`${from}.${role} carries a ${carrying}, and columns of its own here.`);
    const carried = (value?.attributes ?? []).map((attribute) => {
      const facts = columnOf(
        this.dialect,
        attribute,
        this.free(name, columnName(attribute.name)),
        false,
        null,
      );
      for (const what of facts.unsaid) this.unsaid.push(`${carrying ?? ''}.${attribute.name} ${what}.`);
      return facts;
    });
    const isGuarded = onRemoveOf(pairing) === 'restrict';
    const whole = { isRequired: true, comment: null };
    const near = this.refer(name, singular(back ?? from), from, { ...whole, onDelete: 'cascade' });
    const far = this.refer(name, singular(role), to, { ...whole, onDelete: isGuarded ? null : 'cascade' });
    const columns = [...near.columns, ...far.columns];
    const checks: readonly CheckDraft[] = carried.flatMap((facts) => facts.checks);
    return {
      name,
      comment: commentOf({ description }),
      columns: [...columns, ...carried.map(({ column }) => column)],
      primary: columns.map((column) => column.name),
      uniques: [],
      checks,
      foreign: [near.foreign, far.foreign],
    };
  }
}
