import { bareObject, type Json } from '../model/index.js';
import type { SourceLines } from './lines.js';

/** A record of a source, by the names of the model it was read as. Its values are as they were written. */
export interface IntakeRecord extends SourceLines {
  /** Its record type: an entity, or a pairing as `Sailing crew`. */
  readonly type: string;
  /** By the names of attributes; those of values inside by theirs. */
  readonly values: Readonly<Record<string, Json>>;
  /** Where its to-one roles lead. */
  readonly pointers: ReadonlyMap<string, IntakePointer>;
}

/** The index of the record that is meant among all of the source, or what nothing was found by. */
export type IntakePointer = { readonly to: number } | { readonly missing: string };

/** Finds records by values that tell them apart. */
export class IntakeRecordIndex {
  private readonly byValues = new Map<string, number>();

  /** Of several with the same values the first is found: it is the one that stays. */
  add(values: readonly string[], index: number): void {
    const key = JSON.stringify(values);
    if (!this.byValues.has(key)) this.byValues.set(key, index);
  }

  /** Where a role leads that says these values. */
  pointer(values: readonly string[]): IntakePointer {
    const to = this.byValues.get(JSON.stringify(values));
    return to === undefined ? { missing: values.join(', ') } : { to };
  }
}

/** A record that is yet to be filled. */
export interface OpenIntakeRecord extends IntakeRecord {
  readonly values: Record<string, Json>;
  pointers: ReadonlyMap<string, IntakePointer>;
}

/** Most records lead nowhere, and there may be very many. */
const NOWHERE: ReadonlyMap<string, IntakePointer> = new Map();

/** Lets a role of a record lead somewhere. */
export function setPointer(record: OpenIntakeRecord, role: string, pointer: IntakePointer): void {
  record.pointers = new Map([...record.pointers, [role, pointer]]);
}

export const newIntakeRecord = (type: string, { line, endLine }: SourceLines): OpenIntakeRecord => ({
  type,
  line,
  endLine,
  values: bareObject(),
  pointers: NOWHERE,
});
