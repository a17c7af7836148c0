import { Column, Entity, PrimaryColumn } from 'typeorm';

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
