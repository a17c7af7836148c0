/** `merge`: records with a known key change, others are added. `replace`: whatever is not given goes, too. */
export type ImportMode = 'merge' | 'replace';

export interface ImportOptions {
  readonly mode: ImportMode;
  /** Milliseconds since 1970. */
  readonly now: number;
  readonly uuid: () => string;
  /** More records than this there may not be afterwards. */
  readonly most: number;
}
