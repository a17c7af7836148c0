import type { RevisionKind } from '@isomeros/api';
import { Column, Entity, Index, PrimaryColumn } from 'typeorm';

/** One piece of work: the text of a model and what belongs to it. */
@Entity({ name: 'designs' })
@Index(['changedAt', 'id'])
export class DesignRow {
  @PrimaryColumn({ type: 'char', length: 36 })
  id: string;

  @Column({ type: 'varchar', length: 255 })
  name: string;

  /** The model as it was last saved, sound or not. */
  @Column({ type: 'longtext' })
  text: string;

  /** The last saved text without errors: what contracts are derived from. */
  @Column({ type: 'longtext', name: 'valid_text' })
  validText: string;

  /** From addresses in the sound text to identities, as JSON. */
  @Column({ type: 'longtext' })
  identities: string;

  /** What was decided besides the text, as JSON. */
  @Column({ type: 'longtext' })
  choices: string;

  /** Elements that went and came lately, as JSON. */
  @Column({ type: 'longtext', name: 'rename_candidates' })
  renameCandidates: string;

  /** What it amounts to, as JSON; `null` before that was worked out. */
  @Column({ type: 'longtext', nullable: true })
  figures: string | null;

  /** The version of the derivation that found it. */
  @Column({ type: 'int', unsigned: true, name: 'figures_version' })
  figuresVersion: number;

  /** Counts the saved changes, from 1. */
  @Column({ type: 'int', unsigned: true })
  revision: number;

  @Column({ type: 'datetime', precision: 3, name: 'created_at' })
  createdAt: Date;

  @Column({ type: 'datetime', precision: 3, name: 'changed_at' })
  changedAt: Date;

  /** Set while it is removed and can be brought back. */
  @Column({ type: 'datetime', precision: 3, name: 'removed_at', nullable: true })
  removedAt: Date | null;
}

/** One saved state of a design. */
@Entity({ name: 'revisions' })
export class RevisionRow {
  @PrimaryColumn({ type: 'char', length: 36, name: 'design_id' })
  designId: string;

  @PrimaryColumn({ type: 'int', unsigned: true })
  number: number;

  @Column({ type: 'datetime', precision: 3 })
  at: Date;

  @Column({ type: 'varchar', length: 20 })
  what: RevisionKind;

  @Column({ type: 'boolean' })
  valid: boolean;

  @Column({ type: 'int', unsigned: true, name: 'lines_added' })
  linesAdded: number;

  @Column({ type: 'int', unsigned: true, name: 'lines_removed' })
  linesRemoved: number;

  /** Texts, identities and choices as JSON, compressed (RFC 1951). */
  @Column({ type: 'longblob' })
  state: Buffer;
}

/** The records that mocks of a design begin with. */
@Entity({ name: 'initial_records' })
export class InitialRecordsRow {
  @PrimaryColumn({ type: 'char', length: 36, name: 'design_id' })
  designId: string;

  @Column({ type: 'datetime', precision: 3, name: 'kept_at' })
  keptAt: Date;

  @Column({ type: 'int', unsigned: true })
  records: number;

  /** How many there are of each type, as JSON. */
  @Column({ type: 'longtext' })
  types: string;

  /** The model they fitted, as JSON. */
  @Column({ type: 'longtext' })
  model: string;

  /** The rows as JSON, compressed (RFC 1951). */
  @Column({ type: 'longblob', name: 'compressed_rows' })
  rows: Buffer;
}

/** A contract frozen under a label. What it holds never changes. */
@Entity({ name: 'releases' })
export class ReleaseRow {
  @PrimaryColumn({ type: 'char', length: 36, name: 'design_id' })
  designId: string;

  @PrimaryColumn({ type: 'varchar', length: 60 })
  label: string;

  /** Counts the releases of a design, from 1. */
  @Column({ type: 'int', unsigned: true })
  number: number;

  /** The name of the arrangement it was made from, as it is called now. */
  @Column({ type: 'varchar', length: 60 })
  arrangement: string;

  /** The version the contract is served under. */
  @Column({ type: 'varchar', length: 60 })
  version: string;

  /** The revision of the design it was made from. */
  @Column({ type: 'int', unsigned: true })
  revision: number;

  @Column({ type: 'int', unsigned: true })
  operations: number;

  @Column({ type: 'datetime', precision: 3, name: 'made_at' })
  madeAt: Date;

  /** From when it is not to be used any more; null while it may be. */
  @Column({ type: 'datetime', precision: 3, name: 'deprecated_at', nullable: true })
  deprecatedAt: Date | null;

  /** When it stops answering. */
  @Column({ type: 'datetime', precision: 3, name: 'sunset_at', nullable: true })
  sunsetAt: Date | null;

  /** What comes after it, as JSON. */
  @Column({ type: 'text', nullable: true })
  successor: string | null;

  /** The contract as JSON, compressed (RFC 1951). */
  @Column({ type: 'longblob' })
  contract: Buffer;
}
