import type { PublicationOptions, PublicationSource } from '../source.js';

/** An open format in which contracts are published. */
export interface PublicationFormat {
  /** What it is called, with its version. */
  readonly title: string;
  readonly mediaType: string;
  /** The text of the document. The same source gives the same text. */
  readonly write: (source: PublicationSource, options: PublicationOptions) => string;
  /** What of the source the format cannot say, a sentence each; it is changed or left out. */
  readonly cannotSay: (source: PublicationSource) => readonly string[];
}
