import type { SecurityScheme } from './access.js';
import type { Via } from './via.js';
import type { AlongStep, LinkAttributes, LinkPlace, Settings } from '../arrangement/index.js';
import type { Condition, ScalarType } from '../model/index.js';
import type { ApiDocumentation } from './documentation.js';
import type { StructureNames } from './naming.js';
import type { Operation, OwnField, PageForm } from './operation.js';
import type { Reasons } from './reasons.js';
import type { RecordEnvelope } from './recordEnvelope.js';
import type { Assumption, Finding } from './review.js';
import type { Shape } from './shape.js';

/** What a model and an arrangement imply. Plain data: it travels as JSON and is compared byte by byte. */
export interface Contract {
  readonly title: string;
  readonly description: string | null;
  readonly documentation: ApiDocumentation;
  readonly version: string;
  /** Base path and, where it stands in the path, version, without trailing slash: `/api/v1`; may be empty. */
  readonly root: string;
  readonly resources: readonly Resource[];
  readonly operations: readonly Operation[];
  readonly shapes: readonly Shape[];
  readonly findings: readonly Finding[];
  readonly assumptions: readonly Assumption[];
  readonly limits: { readonly bodyBytes: number };
  readonly names: StructureNames;
  readonly representation: Pick<
    Settings,
    'links' | 'linkForm' | 'linkMethods' | 'memberLinks' | 'unset' | 'decimalScales'
  > & {
    /** What the URIs of its own link relations begin with; the mock itself where empty. */
    readonly relationBase: string;
    /** The media types of answers, the preferred one first. */
    readonly mediaTypes: readonly MediaType[];
    /** Relations that were chosen for links and are registered with IANA. */
    readonly registered: readonly string[];
    /** How one record stands in plain JSON; `null` where it is the body. */
    readonly record: RecordEnvelope | null;
  };
  /** The form of lists for which none was chosen. */
  readonly paging: PageForm;
  /** The response header that tells the number of all records. */
  readonly totalHeader: string;
  /** The response header by which a bare list with a ceiling says whether there are more. */
  readonly moreHeader: string;
  /** The request header that may name the version, where it stands in one. */
  readonly versionHeader: string | null;
  readonly trailingSlash: Settings['trailingSlash'];
  readonly security: Security;
  /** What happens to members of a body that no shape has. */
  readonly unknownMembers: Settings['unknownMembers'];
}

/** How clients prove who they are: alternatives, in the order they are offered; none where there are none. */
export interface Security {
  readonly schemes: readonly SecurityScheme[];
  /** The request header that holds an API key. */
  readonly keyHeader: string;
  /** The roles that some operation asks for, in the order of their names. */
  readonly roles: readonly string[];
}

export type MediaType = 'application/json' | 'application/hal+json';

export type Segment =
  | { readonly kind: 'literal'; readonly text: string }
  | {
      readonly kind: 'id';
      readonly parameter: string;
      /** Name and identity of the entity whose key the segment holds. */
      readonly entity: string;
      readonly type: ScalarType;
    };

/**
 * `reverse` lists what points at a record, `reference` reads what a record points at, `pairing` lists what is
 * paired with it; a `pair` is one of those; an `action` is a transition of a record, or an operation
 * of one's own on it, a `collection-action` one on the records of a collection; a `query` lists what it always looks
 * for, or reads one of it; `fixed` is always the same.
 */
export type ResourceKind =
  | 'entry'
  | 'collection'
  | 'item'
  | 'singleton'
  | 'reverse'
  | 'reference'
  | 'pairing'
  | 'pair'
  | 'action'
  | 'collection-action'
  | 'query'
  | 'aggregate'
  | 'fixed';

/** A place in the path tree. */
export interface Resource {
  /** Unique in the contract and stable under renames of anything else. */
  readonly id: string;
  readonly kind: ResourceKind;
  /**
   * Whether its records have their one canonical address here, or are made or paired here. Where not, it is
   * another way to them, and only to read.
   */
  readonly canonical: boolean;
  readonly segments: readonly Segment[];
  /** The path under the root, as a template: `/routes/{routeNumber}`; the entry has the empty path. */
  readonly path: string;
  /** The resource above it in the path tree; `null` for the entry. */
  readonly parent: string | null;
  /** The name of the entity whose records it shows; `null` for the entry. */
  readonly entity: string | null;
  /** The relationship that leads here from the record above; `null` at the root. */
  readonly via: Via | null;
  /** The identity of the transition that an action carries out; `null` for every other kind. */
  readonly transition: string | null;
  /** The id of the operation of one's own that is carried out here; `null` for every other resource. */
  readonly custom: string | null;
  /** What the word names that the path adds to the one above: a statement, or its way back; `null` where it adds none. */
  readonly word: string | null;
  readonly links: readonly Link[];
  /** Links that were left out. */
  readonly leftOutLinks: readonly Link[];
  /** What it could do and does not offer. */
  readonly leftOut: readonly LeftOutOperation[];
  readonly reasons: Reasons;
}

/** An operation that a resource could have and that was left out. */
export type LeftOutOperation = Pick<Operation, 'verb' | 'method' | 'effect' | 'reasons'>;

/** A link that a representation offers. Derived once, rendered in whatever form the arrangement asks for. */
export interface Link {
  /** Unique among the links of its resource; outlives all names. */
  readonly id: string;
  /** Of several links with one relation there is an array, however many are there now. */
  readonly relation: string;
  /** What is told of it besides where it leads; `null` where nothing is. */
  readonly attributes: LinkAttributes | null;
  /** The relation it has where none is chosen; `null` where it has that. */
  readonly was: string | null;
  /** Where it is carried; `null` where that is as it is for all links. */
  readonly in: readonly LinkPlace[] | null;
  readonly target: LinkTarget;
  readonly reasons: Reasons;
}

export type LinkTarget = DerivedTarget | OwnTarget;

/** Where a link of one's own leads; offered while the condition holds, and while everything it is made of has a value. */
export type OwnTarget =
  | {
      readonly kind: 'operation';
      readonly resource: string;
      /** The id of the operation. */
      readonly operation: string;
      /** What path parameters are filled in with; the others have the ids of the record, or of its owners. */
      readonly ids: Readonly<Record<string, LinkValue>>;
      readonly query: readonly BoundQuery[];
      /** Parameters that the client fills in, of the path and of the query, as a URI template (RFC 6570). */
      readonly open: { readonly path: readonly string[]; readonly query: readonly string[] };
      readonly when: Condition;
    }
  /** The record that roles lead to, at its canonical address. */
  | {
      readonly kind: 'along';
      readonly along: readonly AlongStep[];
      readonly resource: string;
      readonly when: Condition;
    }
  /** Somewhere else: texts as they are, and values percent-encoded (RFC 6570 §3.2.2). A value alone is the whole URI. */
  | {
      readonly kind: 'address';
      readonly parts: readonly (string | ReachedValue)[];
      readonly when: Condition;
    };

/** What a record has that roles lead to from the one that offers a link; from that record itself without any. */
export interface ReachedValue {
  readonly kind: 'field';
  readonly along: readonly AlongStep[];
  readonly field: OwnField;
}

export type LinkValue =
  | { readonly kind: 'literal'; readonly text: string }
  /** The moment, cut to the minute. */
  | { readonly kind: 'now'; readonly type: ScalarType }
  | ReachedValue;

/** A query parameter that a link sets; `before`: what stands in front of the value. */
export interface BoundQuery {
  readonly name: string;
  readonly before: string;
  readonly value: LinkValue;
}

export type DerivedTarget =
  /** A page of the mock about itself, by its path under the root. */
  | { readonly kind: 'about'; readonly path: string }
  | { readonly kind: 'self' }
  /** Another resource whose ids are those of the record, its owners, or none. */
  | {
      readonly kind: 'resource';
      readonly resource: string;
      /** Names of the parameters that the client fills in, as a URI template (RFC 6570 §3.2.8). */
      readonly query?: readonly string[];
    }
  /** The canonical item of the record that a reference points at; absent while unset. */
  | { readonly kind: 'reference'; readonly relationship: string; readonly resource: string }
  /** Where what a reference points at is read below the record; absent while unset. */
  | { readonly kind: 'read'; readonly relationship: string; readonly resource: string }
  /** A list narrowed by a parameter to what belongs to the record. */
  | { readonly kind: 'filtered'; readonly resource: string; readonly parameter: string }
  /** The canonical item or singleton of the owner of the record; absent for the unowned. */
  | { readonly kind: 'owner'; readonly relationship: string; readonly resource: string }
  /** A transition of the record; there only while its state and condition allow it. */
  | { readonly kind: 'action'; readonly resource: string; readonly transition: string }
  /** An operation of one's own on the record; there only while its condition allows it. */
  | { readonly kind: 'custom'; readonly resource: string; readonly when: Condition }
  /**
   * Items of a list, as a URI template (RFC 6570). `variables`: from path parameters to the members of a listed
   * record that fill them in; the other ids are those of the list. `null` in releases of format 1: no id is filled in.
   */
  | {
      readonly kind: 'template';
      readonly resource: string;
      readonly variables: Readonly<Record<string, string>> | null;
    }
  /** Items of a list, a link each, where no template leads to them. */
  | { readonly kind: 'items'; readonly resource: string }
  /** The pair by which a listed record is paired. */
  | { readonly kind: 'pair' }
  /** Another page of the same list. */
  | { readonly kind: 'page'; readonly page: 'first' | 'prev' | 'next' | 'last' }
  /** The published description of the contract. */
  | { readonly kind: 'description' };
