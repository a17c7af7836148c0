import type { Contract } from '../../contract/index.js';

/** An open format in which contracts are published. */
export interface PublicationFormat {
  /** What it is called, with its version. */
  readonly title: string;
  readonly mediaType: string;
  /** The text of the document. The same contract gives the same text. */
  readonly write: (contract: Contract) => string;
}
