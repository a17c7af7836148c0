import type { Literal } from '../model/index.js';

/** Where one record in plain JSON is no body of its own, but a member of one. */
export interface RecordEnvelope {
  /** The member that holds the record. */
  readonly member: string;
  /** Whether it stands so in answers alone, or also in what is sent. */
  readonly of: 'answers' | 'bodies';
  /** Where the links of the record stand, which plain JSON has in an object: in it, or beside its member. */
  readonly links: 'inside' | 'beside';
  /** What else is beside it in every answer. */
  readonly constants: readonly { readonly name: string; readonly value: Literal | null }[];
}
