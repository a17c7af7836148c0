/** What the structures of answers are called, which no statement of the model names. */
export interface StructureNames {
  readonly links: string;
  readonly items: string;
  readonly page: string;
  readonly number: string;
  readonly size: string;
  readonly offset: string;
  readonly limit: string;
  readonly next: string;
  readonly prev: string;
  readonly more: string;
  readonly totalItems: string;
  readonly totalPages: string;
}
