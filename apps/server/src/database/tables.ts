import type { RevisionKind } from '@isomeros/api';
import { Column, Entity, Index, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';

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

/** A mock server: what it serves, where, and whether it should be running. */
@Entity({ name: 'mocks' })
@Index(['designId'])
export class MockRow {
  @PrimaryColumn({ type: 'char', length: 36 })
  id: string;

  @Column({ type: 'char', length: 36, name: 'design_id' })
  designId: string;

  @Column({ type: 'boolean' })
  running: boolean;

  /** What goes wrong on purpose, as JSON. */
  @Column({ type: 'text' })
  faults: string;

  /** What it signs with. */
  @Column({ type: 'char', length: 43 })
  secret: string;

  @Column({ type: 'datetime', precision: 3, name: 'created_at' })
  createdAt: Date;
}

/** An arrangement or a release that a mock serves behind a port of its own. */
@Entity({ name: 'mock_endpoints' })
export class EndpointRow {
  @PrimaryColumn({ type: 'char', length: 36, name: 'mock_id' })
  mockId: string;

  @PrimaryColumn({ type: 'varchar', length: 20 })
  kind: 'arrangement' | 'release';

  /** The name of the arrangement, or the label of the release. */
  @PrimaryColumn({ type: 'varchar', length: 60 })
  name: string;

  /** Its place among those of its mock; arrangements come first. */
  @Column({ type: 'int', unsigned: true })
  position: number;

  /** 0 before it has one. */
  @Column({ type: 'int', unsigned: true })
  port: number;

  /** Whether it answers requests that name no version, where a header tells it from others. */
  @Column({ type: 'boolean', default: false })
  unversioned: boolean;
}

/** The records of a mock as a whole: the model they satisfy, and how many writes they have seen. */
@Entity({ name: 'datasets' })
export class DatasetRow {
  /** That of the mock. */
  @PrimaryColumn({ type: 'char', length: 36 })
  id: string;

  @Column({ type: 'int', unsigned: true })
  seed: number;

  /** What is wanted of seed records, as JSON. */
  @Column({ type: 'longtext', name: 'seed_plan' })
  seedPlan: string;

  /** Whether it begins with the initial records of its design rather than with seed records. */
  @Column({ type: 'boolean', name: 'begins_initial', default: false })
  beginsInitial: boolean;

  @Column({ type: 'longtext', name: 'model_text' })
  modelText: string;

  @Column({ type: 'longtext', name: 'model_identities' })
  modelIdentities: string;

  /** What was decided about the design, as JSON. */
  @Column({ type: 'longtext', name: 'model_choices' })
  modelChoices: string;

  /** Revision of the design the model is from. */
  @Column({ type: 'int', unsigned: true, name: 'model_revision' })
  modelRevision: number;

  /** The last numbers given out, as JSON. */
  @Column({ type: 'longtext' })
  counters: string;

  /** Counts committed writes; a commit names the number it follows. */
  @Column({ type: 'bigint', unsigned: true, transformer: { to: (value: number) => value, from: Number } })
  sequence: number;

  /** The process that holds the dataset; a commit by any other fails. */
  @Column({ type: 'char', length: 36 })
  holder: string;
}

/** One record of a dataset. */
@Entity({ name: 'records' })
export class RecordRow {
  @PrimaryColumn({ type: 'char', length: 36, name: 'dataset_id' })
  datasetId: string;

  @PrimaryColumn({
    type: 'bigint',
    unsigned: true,
    transformer: { to: (value: number) => value, from: Number },
  })
  rid: number;

  /** Entity, revision and values, as JSON. */
  @Column({ type: 'longtext' })
  data: string;
}

/** The first answer to a request with an Idempotency-Key. */
@Entity({ name: 'idempotent_responses' })
export class IdempotentResponseRow {
  @PrimaryColumn({ type: 'char', length: 36, name: 'dataset_id' })
  datasetId: string;

  @PrimaryColumn({ type: 'char', length: 16 })
  id: string;

  /** Milliseconds since 1970. */
  @Column({
    type: 'bigint',
    unsigned: true,
    name: 'kept_at',
    transformer: { to: (value: number) => value, from: Number },
  })
  at: number;

  /** Fingerprint and response, as JSON. */
  @Column({ type: 'longtext' })
  data: string;
}

/** A token that was handed out: a digest of what is presented, and what it stands for. */
@Entity({ name: 'tokens' })
export class TokenRow {
  /** In the order in which they were handed out. */
  @PrimaryGeneratedColumn({ type: 'bigint', unsigned: true })
  number: string;

  @Column({ type: 'char', length: 36, name: 'dataset_id' })
  datasetId: string;

  @Column({ type: 'char', length: 43 })
  digest: string;

  /** The record that it stands for. */
  @Column({
    type: 'bigint',
    unsigned: true,
    transformer: { to: (value: number) => value, from: Number },
  })
  rid: number;

  /** Milliseconds since 1970. */
  @Column({
    type: 'bigint',
    unsigned: true,
    transformer: { to: (value: number) => value, from: Number },
  })
  ends: number;

  /** All of it as JSON. */
  @Column({ type: 'longtext' })
  data: string;
}

/** Records of a mock as they were at a moment, under a name. */
@Entity({ name: 'snapshots' })
export class SnapshotRow {
  @PrimaryColumn({ type: 'char', length: 36, name: 'dataset_id' })
  datasetId: string;

  @PrimaryColumn({ type: 'varchar', length: 60 })
  name: string;

  @Column({ type: 'datetime', precision: 3, name: 'taken_at' })
  takenAt: Date;

  @Column({ type: 'int', unsigned: true })
  records: number;

  /** The model and the records as JSON, compressed (RFC 1951). */
  @Column({ type: 'longblob' })
  state: Buffer;
}

/** Exchanges of a mock that were written together. */
@Entity({ name: 'journal_segments' })
export class JournalSegmentRow {
  @PrimaryColumn({ type: 'char', length: 36, name: 'mock_id' })
  mockId: string;

  /** The number of its first exchange. */
  @PrimaryColumn({
    type: 'bigint',
    unsigned: true,
    name: 'first_number',
    transformer: { to: (value: number) => value, from: Number },
  })
  first: number;

  @Column({
    type: 'bigint',
    unsigned: true,
    name: 'last_number',
    transformer: { to: (value: number) => value, from: Number },
  })
  last: number;

  @Column({ type: 'int', unsigned: true })
  exchanges: number;

  /** Of both texts, as they are compressed. */
  @Column({ type: 'int', unsigned: true })
  bytes: number;

  /** What a list tells of each, a line of JSON each, compressed (RFC 1951). */
  @Column({ type: 'longblob' })
  summaries: Buffer;

  /** All that is kept of each, a line of JSON each, compressed (RFC 1951). */
  @Column({ type: 'longblob' })
  bodies: Buffer;
}

/** An exchange that stays, whatever goes. */
@Entity({ name: 'pinned_exchanges' })
export class PinnedExchangeRow {
  @PrimaryColumn({ type: 'char', length: 36, name: 'mock_id' })
  mockId: string;

  @PrimaryColumn({
    type: 'bigint',
    unsigned: true,
    name: 'exchange_number',
    transformer: { to: (value: number) => value, from: Number },
  })
  number: number;

  /** JSON, compressed (RFC 1951). */
  @Column({ type: 'longblob' })
  exchange: Buffer;
}

/** Small facts about the installation, such as which samples were loaded. */
@Entity({ name: 'installation_state' })
export class InstallationStateRow {
  @PrimaryColumn({ type: 'varchar', length: 60 })
  name: string;

  @Column({ type: 'varchar', length: 255 })
  value: string;
}
