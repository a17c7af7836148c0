/** A rule of derivation: a title and one sentence of plain English. */
export interface Rule {
  readonly title: string;
  readonly sentence: string;
}
