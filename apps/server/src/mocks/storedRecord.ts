/** A record as it is stored. */
export interface StoredRecord {
  readonly rid: number;
  /** As JSON. */
  readonly data: string;
}
