import type { DocumentedKind, SaidOf } from '../arrangement/index.js';

/** Where more is told. */
export interface ExternalDocumentation {
  readonly url: string;
  readonly text: string | null;
}

/** What notes can be about: parts of operations, and what errors say. */
export type NoteKind = Extract<
  DocumentedKind,
  'member' | 'parameter' | 'header' | 'response' | 'constraint' | 'problem'
>;

/** What is said of parts, by kind, then by what the part is filed by; links to operations say their names. */
export type Notes = { readonly [Kind in NoteKind]: Readonly<Record<string, SaidOf<Kind>>> };

export const NO_NOTES: Notes = {
  member: {},
  parameter: {},
  header: {},
  response: {},
  constraint: {},
  problem: {},
};

export const NOTE_KINDS = Object.keys(NO_NOTES) as readonly NoteKind[];

/** A place where the API is served (OAS §4.8.5). */
export interface ServedAt {
  readonly name: string;
  /** May hold variables in braces. */
  readonly url: string;
  readonly description: string | null;
  /** What each variable of the URL may be, what it usually is first; at least one. */
  readonly variables: Readonly<Record<string, readonly string[]>>;
}

/** What operations stand under (OAS §4.8.22). */
export interface Tag {
  /** The identity of an entity, `entry`, or that of a tag of one's own. */
  readonly id: string;
  /** Unique among the tags. */
  readonly title: string;
  readonly description: string | null;
  readonly external: ExternalDocumentation | null;
}

/** What is said of the API as a whole besides its title and description; what is not said is `null`. */
export interface ApiDocumentation {
  readonly summary: string | null;
  /** Of the document. */
  readonly version: string | null;
  readonly contact: {
    readonly name: string | null;
    readonly url: string | null;
    readonly email: string | null;
  } | null;
  readonly license: { readonly name: string; readonly url: string | null } | null;
  readonly terms: string | null;
  readonly external: ExternalDocumentation | null;
  readonly servers: readonly ServedAt[];
  /** In their order; each has an operation. */
  readonly tags: readonly Tag[];
  readonly notes: Notes;
}

/** What is said of an operation. */
export interface OperationDocumentation {
  /** What takes the place of the summary that is derived; `null` where that stands. */
  readonly summary: string | null;
  /** In CommonMark. */
  readonly description: string | null;
  readonly external: ExternalDocumentation | null;
  /** The day from which it is not to be used any more; `null` where it goes on being used. */
  readonly deprecated: string | null;
  /** The day on which it stops answering; `null` where nobody knows. */
  readonly sunset: string | null;
  /** The id of the operation that is to be used in its place. */
  readonly successor: string | null;
  /** Whether it stands in published documents. */
  readonly isPublished: boolean;
}

/** Whether an operation stands in published documents. */
export const isPublished = ({
  documentation,
}: {
  readonly documentation: OperationDocumentation | null;
}): boolean => documentation?.isPublished !== false;

/** Whether somebody wrote what an operation is for. */
export const isDocumented = (documentation: OperationDocumentation | null): boolean =>
  documentation !== null && (documentation.summary !== null || documentation.description !== null);

/** What the ids of tags of one's own begin with; others are those of entities. */
const OWN_TAG = 'own/';

export const isOwnTag = (id: string): boolean => id.startsWith(OWN_TAG);

/** The id of a tag that nothing derives, by what it is called at first. */
export const ownTag = (title: string): string => OWN_TAG + title;
