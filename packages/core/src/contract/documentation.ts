/** Where more is told. */
export interface ExternalDocumentation {
  readonly url: string;
  readonly text: string | null;
}

/** What is said of the API as a whole besides its title and description; what is not said is `null`. */
export interface ApiDocumentation {
  readonly summary: string | null;
  readonly contact: {
    readonly name: string | null;
    readonly url: string | null;
    readonly email: string | null;
  } | null;
  readonly license: { readonly name: string; readonly url: string | null } | null;
  readonly terms: string | null;
  readonly external: ExternalDocumentation | null;
}

/** What is said of an operation besides its summary. */
export interface OperationDocumentation {
  /** In CommonMark. */
  readonly description: string | null;
  readonly external: ExternalDocumentation | null;
  /** The day from which it is not to be used any more; `null` where it goes on being used. */
  readonly deprecated: string | null;
  /** The day on which it stops answering; `null` where nobody knows. */
  readonly sunset: string | null;
  /** Whether it stands in published documents. */
  readonly isPublished: boolean;
}
