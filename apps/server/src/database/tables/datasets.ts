import { Column, Entity, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';

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
