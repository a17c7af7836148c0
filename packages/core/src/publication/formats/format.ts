import type { Published, PublicationOptions, PublicationSource } from '../source.js';

/** An open format in which contracts are published. */
export interface PublicationFormat {
  /** What it is called, with its version. */
  readonly title: string;
  readonly mediaType: string;
  /** The document. The same source gives the same text. */
  readonly write: (source: PublicationSource, options: PublicationOptions) => Published;
}
