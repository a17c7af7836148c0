import {
  camelCase,
  isSecretName,
  plural,
  withArticle,
  type Attribute,
  type AttributeType,
  type Declaration,
  type Relationship,
} from '../../model/index.js';
import { newAttribute, newEntity, asMemberName, Names, ownsMany, refersTo, newValue } from '../build.js';
import type { SourceLines } from '../lines.js';
import { assumed, instead, Report, type Intake, type IntakeOptions } from '../report.js';
import { finishIntake } from '../finishIntake.js';
import type { IntakeRecord } from '../intakeRecord.js';
import { intakeRecords, TableMembers } from './intakeRecords.js';
import { keyOfTable, referenceOf, type TableKey } from './keys.js';
import { profileOf, type Profile } from './profile.js';
import { readRecordSets } from './sources.js';
import { Tables, type SampleTable } from './tables.js';

/**
 * Reads sample records (a JSON array or object, lines of JSON, or comma-separated values) as a model: types,
 * keys, references and enumerations are inferred from the values, which are the evidence. Total.
 */
export function readRecords(
  source: string,
  name: string,
  { progress, record = name }: IntakeOptions = {},
): Intake {
  const report = new Report();
  const tables = new Tables(report);
  for (const { kind, records } of readRecordSets(source, report))
    if (records.length > 0) tables.add(kind, records, record);
  progress?.(0.4);
  const all = tables.all();
  if (all.length === 0) report.problem ??= 'No record was found: expected JSON objects, or lines of values.';
  const model = new RecordModel(all, report);
  const declarations = model.declarations();
  progress?.(0.8);
  report.records = model.records();
  progress?.(0.9);
  return finishIntake(name, declarations, report);
}

class RecordModel {
  private readonly names = new Names();
  private readonly keys = new Map<SampleTable, TableKey | null>();
  private readonly profiles = new Map<SampleTable, readonly Profile[]>();
  private readonly relationships: Relationship[] = [];
  private readonly members = new TableMembers();

  constructor(
    private readonly tables: readonly SampleTable[],
    private readonly report: Report,
  ) {
    for (const table of tables) {
      const profiles = [...table.columns.keys()].map((column) => profileOf(table, column));
      this.profiles.set(table, profiles);
      this.keys.set(table, keyOfTable(table, profiles));
    }
  }

  declarations(): readonly Declaration[] {
    for (const table of this.tables) this.joinToOwner(table);
    const blocks = this.tables.map((table) => this.block(table));
    const isValue = ({ kind }: Declaration): boolean => kind === 'value';
    return [...blocks.filter(isValue), ...blocks.filter((block) => !isValue(block)), ...this.relationships];
  }

  /** The records as those of what was declared, which is asked for first. */
  records(): readonly IntakeRecord[] {
    return intakeRecords(this.tables, this.keys, this.members);
  }

  /** A record inside another one without a key of its own is a value of it; so is everything in a value. */
  private isValue(table: SampleTable): boolean {
    if (table.within === null || table.within.many) return false;
    if ((this.keys.get(table) ?? null) !== null) return false;
    return this.tables.every((inner) => inner.within?.table !== table.name || this.isValue(inner));
  }

  private joinToOwner(table: SampleTable): void {
    const { within } = table;
    if (within === null || this.isValue(table)) return;
    const lines = linesOf(table);
    const role = this.names.free(within.table, asMemberName(within.property, 'part'));
    const what = counts(table);
    if (!within.many) {
      const outer = this.tables.find(({ name }) => name === within.table);
      const always = outer?.rows.length === table.rows.length;
      const refers = refersTo({ from: within.table, to: table.name, role, back: null }, always);
      this.members.set(table, { kind: 'referred', role });
      this.report.understand(refers.id, lines, `${what} with a key inside ${plural(within.table)}`);
      this.relationships.push(refers);
      return;
    }
    const owns = ownsMany({ from: within.table, to: table.name, role, back: null });
    this.members.set(table, { kind: 'owned', role: camelCase(within.table) });
    this.relationships.push(owns);
    this.report.understand(owns.id, lines, `${what} in lists of ${plural(within.table)}`);
    this.report.ask(
      lines,
      `Can ${withArticle(table.name)} exist without its ${within.table}?`,
      `Each stands inside one ${within.table}.`,
      [
        assumed('no, it is owned'),
        instead('yes, it refers to it', { kind: 'turn-around', relationship: owns.id }),
      ],
    );
  }

  private block(table: SampleTable): Declaration {
    const isValue = this.isValue(table);
    const lines = linesOf(table);
    const values = this.valueMembers(table);
    const attributes = (this.profiles.get(table) ?? []).flatMap((profile) =>
      isValue ? this.plain(table, profile) : this.attribute(table, profile),
    );
    this.report.understand(
      table.name,
      lines,
      counts(table) + (isValue ? ' without a key inside others' : ''),
    );
    const all = [...attributes, ...values];
    return isValue ? newValue(table.name, all) : newEntity(table.name, all);
  }

  private valueMembers(table: SampleTable): Attribute[] {
    return this.tables.flatMap((inner) => {
      if (inner.within?.table !== table.name || !this.isValue(inner)) return [];
      const name = this.names.free(table.name, asMemberName(inner.within.property, 'part'));
      this.members.set(inner, { kind: 'value', name });
      const attribute = newAttribute(
        table.name,
        name,
        { kind: 'value', name: inner.name },
        {
          required: inner.rows.length === table.rows.length,
        },
      );
      this.report.understand(attribute.id, linesOf(inner), counts(inner));
      return [attribute];
    });
  }

  private plain(table: SampleTable, profile: Profile): Attribute[] {
    const name = table.columns.get(profile.column) ?? profile.column;
    if (!this.names.take(table.name, name)) {
      this.report.tally('columns', null);
      this.report.leave(
        linesOf(table),
        profile.column,
        `${table.name} has something called ${name} already.`,
      );
      return [];
    }
    const attribute = newAttribute(table.name, name, profile.type, { required: profile.missing === 0 });
    this.members.setColumn(table, profile.column, { kind: 'attribute', name });
    this.report.tally('columns', attribute.id);
    this.report.understand(attribute.id, linesOf(table), profile.evidence);
    return [attribute];
  }

  private attribute(table: SampleTable, profile: Profile): Attribute[] {
    const key = this.keys.get(table) ?? null;
    if (key?.column === profile.column) return this.key(table, profile, key);
    const reference = referenceOf(table, profile, this.keys);
    if (reference !== null && this.names.take(table.name, reference.role)) {
      const { role, target } = reference;
      const refers = refersTo({ from: table.name, to: target.name, role, back: null }, profile.missing === 0);
      this.report.understand(
        refers.id,
        linesOf(table),
        `each of ${profile.present} values is a key of ${target.name}`,
      );
      this.relationships.push(refers);
      this.members.setColumn(table, profile.column, { kind: 'reference', role, target });
      this.report.tally('columns', refers.id);
      return [];
    }
    const [attribute] = this.plain(table, profile);
    if (attribute === undefined) return [];
    this.askAbout(attribute, table, profile);
    const isOwn = attribute.name === 'id';
    if (isOwn) {
      this.members.setColumn(table, profile.column, { kind: 'attribute', name: 'ownId' });
      this.report.becomes(attribute.id, `${table.name}.ownId`);
    }
    const named = isOwn ? { ...attribute, id: `${table.name}.ownId`, name: 'ownId' } : attribute;
    return [{ ...named, writeOnly: isSecretName(named.name) }];
  }

  private key(table: SampleTable, profile: Profile, { generated }: TableKey): Attribute[] {
    const name = table.columns.get(profile.column) ?? profile.column;
    this.members.setColumn(table, profile.column, { kind: 'attribute', name });
    // Every entity without a key has a counted id from 1, so it need not be said.
    const isCounted = [...profile.distinct].every((value) => Number(value) >= 1);
    if (name === 'id' && profile.type.kind === 'integer' && isCounted) {
      this.report.tally('columns', table.name);
      return [];
    }
    this.names.take(table.name, name);
    const type: AttributeType =
      profile.type.kind === 'choice' ? { kind: 'text', pattern: null, min: null, max: null } : profile.type;
    const id = `${table.name}.${name}`;
    this.report.tally('columns', id);
    this.report.understand(id, linesOf(table), `${profile.evidence}; no value comes twice`);
    const change = { key: null, generated: false, required: true };
    this.report.ask(
      linesOf(table),
      `Is ${name} the key of ${withArticle(table.name)}?`,
      `${profile.present} records, ${profile.distinct.size} different values.`,
      [assumed('yes'), instead('no, any value', { kind: 'change-attribute', attribute: id, change })],
      id,
    );
    return [newAttribute(table.name, name, type, { key: { generated, within: null }, generated })];
  }

  private askAbout({ id, name, type }: Attribute, table: SampleTable, profile: Profile): void {
    const lines = linesOf(table);
    if (type.kind === 'choice') {
      const text: AttributeType = { kind: 'text', pattern: null, min: null, max: null };
      this.report.ask(
        lines,
        `Has ${table.name}.${name} only these ${type.options.length} values?`,
        `${profile.present} values, among them ${type.options.slice(0, 4).join(', ')}.`,
        [
          assumed('yes, a choice'),
          instead('any text', { kind: 'change-attribute', attribute: id, change: { type: text } }),
        ],
        id,
      );
    }
    if (isSecretName(name)) this.report.askSecret(lines, name, id);
  }
}

const counts = ({ rows }: SampleTable): string =>
  `${rows.length} ${rows.length === 1 ? 'record' : 'records'}`;

/** From the first record of a table to the last one. */
const linesOf = ({ rows }: SampleTable): SourceLines => ({
  line: rows[0]?.lines.line ?? 1,
  endLine: rows.at(-1)?.lines.endLine ?? 1,
});
