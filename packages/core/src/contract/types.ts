import type {
  Aspect,
  FilterOperator,
  Place,
  SettingLevel,
  SettingName,
  Settings,
  SubjectKind,
} from '../arrangement/index.js';
import type { AttributeType, ModelEdit, ScalarType } from '../model/index.js';
import type { StructureNames } from './naming.js';
import type { RuleId } from './rules.js';

/**
 * What a rule read: a statement of the model by its identity, a setting and the level it was set on, or where
 * something was placed.
 */
export type Source =
  | { readonly kind: 'statement'; readonly id: string }
  | {
      readonly kind: 'setting';
      readonly name: SettingName;
      readonly value: string | number;
      readonly level: SettingLevel;
    }
  | {
      readonly kind: 'placement';
      /** The identity of a statement; a way back adds `/back` to it. */
      readonly subject: string;
      readonly place: Place;
      readonly level: 'default' | 'arrangement';
    }
  /** A path word that was chosen for a statement, or for its way back. */
  | {
      readonly kind: 'word';
      readonly subject: string;
      readonly word: string;
      readonly level: 'arrangement';
    }
  /** A cell of the exposure grid that was chosen. */
  | {
      readonly kind: 'exposure';
      readonly entity: string;
      readonly of: string;
      readonly aspect: Aspect;
      readonly level: 'arrangement';
    };

/** Why an element of a contract is there. */
export interface Reason {
  readonly rule: RuleId;
  readonly because: readonly Source[];
}

export type Reasons = readonly Reason[];

/** What a model and an arrangement imply. Plain data: it travels as JSON and is compared byte by byte. */
export interface Contract {
  readonly title: string;
  readonly description: string | null;
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
  readonly representation: Pick<Settings, 'links' | 'envelope'> & {
    /** The media types of answers, the preferred one first. */
    readonly mediaTypes: readonly MediaType[];
  };
  readonly paging: Pick<Settings, 'totals' | 'oversize'> & { readonly style: Settings['pageStyle'] };
  /** The request header that may name the version, where it stands in one. */
  readonly versionHeader: string | null;
  readonly trailingSlash: Settings['trailingSlash'];
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
 * paired with it; a `pair` is one of those; an `action` is a transition of a record.
 */
export type ResourceKind =
  'entry' | 'collection' | 'item' | 'singleton' | 'reverse' | 'reference' | 'pairing' | 'pair' | 'action';

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
  /** What the word names that the path adds to the one above: a statement, or its way back; `null` where it adds none. */
  readonly word: string | null;
  readonly links: readonly Link[];
  readonly reasons: Reasons;
}

export interface Via {
  readonly relationship: string;
  /**
   * `owned`: records under their owner. `referrers`: records that point at the record above; `referred`: what
   * the record above points at. `paired`: what the record above pairs with; `paired-back`: what pairs with the
   * record above.
   */
  readonly direction: 'owned' | 'referrers' | 'referred' | 'paired' | 'paired-back';
}

/** A link that a representation offers. Derived once, rendered in whatever form the arrangement asks for. */
export interface Link {
  readonly relation: string;
  readonly target: LinkTarget;
  readonly reasons: Reasons;
}

export type LinkTarget =
  | { readonly kind: 'self' }
  /** Another resource whose ids are those of the record, its owners, or none. */
  | { readonly kind: 'resource'; readonly resource: string }
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
  /** Items below a list, as a URI template (RFC 6570) whose variables are the ids. */
  | { readonly kind: 'template'; readonly resource: string }
  /** The pair by which a listed record is paired. */
  | { readonly kind: 'pair' }
  /** Another page of the same list. */
  | { readonly kind: 'page'; readonly page: 'first' | 'prev' | 'next' | 'last' }
  /** The published description of the contract. */
  | { readonly kind: 'description' };

export type Verb =
  'entry' | 'list' | 'read' | 'create' | 'replace' | 'change' | 'remove' | 'attach' | 'detach' | 'transition';
export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
/** RFC 9110 §9.2: safe; unsafe but idempotent; neither. */
export type Effect = 'safe' | 'idempotent' | 'neither';

export interface Operation {
  /** Verb then noun, unique: `listSailings`. */
  readonly id: string;
  readonly verb: Verb;
  readonly method: Method;
  readonly resource: string;
  readonly effect: Effect;
  readonly summary: string;
  readonly query: readonly QueryParameter[];
  /** What happens to a query parameter that is not among them. */
  readonly unknownParameters: Settings['unknownParameters'];
  /** The media types a body is accepted in, first the preferred one; empty when no body is read. */
  readonly acceptedTypes: readonly string[];
  /** The shape of an accepted body. */
  readonly accepts: string | null;
  /** The shape of a successful answer's body. */
  readonly returns: string | null;
  readonly responses: readonly ResponseCase[];
  readonly reasons: Reasons;
}

export type QueryParameter = {
  readonly name: string;
  readonly reasons: Reasons;
} & (
  | { readonly role: 'page' }
  | { readonly role: 'offset' }
  | { readonly role: 'size'; readonly default: number; readonly max: number }
  | { readonly role: 'sort'; readonly keys: readonly SortKey[]; readonly style: 'minus' | 'suffix' }
  | {
      readonly role: 'filter';
      readonly field: Field;
      readonly type: ScalarType;
      /** At least one. With `eq` alone the parameter has no brackets. */
      readonly operators: readonly FilterOperator[];
    }
);

export interface SortKey {
  readonly name: string;
  readonly field: Field;
  readonly type: ScalarType;
}

/** Where the value of a member, filter or sort key is read from. */
export type Field =
  | { readonly kind: 'attribute'; readonly attribute: string }
  /** The key of the record that a relationship leads to. */
  | { readonly kind: 'reference'; readonly relationship: string; readonly entity: string }
  /** The key of the owner of the record. */
  | { readonly kind: 'owner'; readonly relationship: string; readonly entity: string };

export type ResponseCode =
  | 'ok'
  | 'created'
  | 'attached'
  | 'removed'
  | 'malformed'
  | 'invalid'
  | 'bad-parameter'
  | 'version'
  | 'missing'
  | 'not-acceptable'
  | 'conflict'
  | 'key-mismatch'
  | 'restricted'
  | 'state'
  | 'too-large'
  | 'media-type';

export interface ResponseCase {
  readonly status: number;
  readonly code: ResponseCode;
  /** When it happens, in a sentence. */
  readonly when: string;
  readonly reasons: Reasons;
}

export type ShapePurpose = 'item' | 'member' | 'page' | 'entry' | 'create' | 'replace' | 'change' | 'value';

/** A JSON object as a client sends or receives it. */
export interface Shape {
  /** Unique in the contract: `Sailing`, `SailingCreate`. */
  readonly name: string;
  readonly purpose: ShapePurpose;
  /** The name of the entity or value it shows. */
  readonly of: string | null;
  readonly members: readonly Member[];
  readonly reasons: Reasons;
}

/**
 * How a body may carry a member. `accepted`: stored. `moved`: stored where a transition leads there. `ignored`:
 * may be sent back, has no effect. `must-equal`: may be sent back with the value it has. `returned`: only in
 * answers.
 */
export type MemberMode = 'accepted' | 'moved' | 'ignored' | 'must-equal' | 'returned';

export interface Member {
  readonly name: string;
  readonly mode: MemberMode;
  readonly required: boolean;
  readonly nullable: boolean;
  readonly type: MemberType;
  readonly source: MemberSource;
  readonly description: string | null;
  readonly default: string | number | boolean | null;
  readonly example: string | number | boolean | null;
  /** Where it is `moved`: the identities of the transitions that may move it. */
  readonly transitions?: readonly string[];
  readonly reasons: Reasons;
}

export type MemberSource =
  | Field
  /** The record in a slot of the one that is written or shown. */
  | { readonly kind: 'slot'; readonly relationship: string; readonly entity: string }
  /** What the pair carries by which the record is listed. */
  | { readonly kind: 'carried'; readonly relationship: string }
  | { readonly kind: 'links' }
  | { readonly kind: 'items' }
  | { readonly kind: 'page' };

export type MemberType =
  | ScalarType
  | { readonly kind: 'json' }
  | { readonly kind: 'shape'; readonly shape: string }
  | {
      readonly kind: 'list';
      readonly of: MemberType;
      readonly min: number | null;
      readonly max: number | null;
    }
  /** A JSON object from relation to link. */
  | { readonly kind: 'links' }
  /** Where a page stands: its number and size, or its offset and limit, and totals where they are counted. */
  | { readonly kind: 'page' };

/** The type of an attribute that is no value and no list of values. */
export type PlainType = Exclude<AttributeType, { kind: 'value' | 'list' }>;

export type Severity = 'error' | 'doubtful';

/** Something wrong or doubtful in the contract. */
export interface Finding {
  readonly id: FindingId;
  readonly severity: Severity;
  readonly message: string;
  /** The resource, operation or statement it concerns. */
  readonly about: string;
  readonly reasons: Reasons;
  /** Edits that would do away with it, where there are any. */
  readonly mends?: readonly Mend[];
}

export interface Mend {
  /** What it does, as a button would say it. */
  readonly title: string;
  readonly act: Extract<Answer, { kind: 'edit' | 'placement' | 'exposure' }>;
}

export type FindingId =
  | 'path.collide'
  | 'member.collide'
  | 'parameter.reserved'
  | 'create.impossible'
  | 'depth.exceeded'
  | 'depth.moved'
  | 'key.scoped-reference'
  | 'key.scoped-root'
  | 'create.withheld'
  | 'member.unseen'
  | 'list.unbounded'
  | 'children.unlinked'
  | 'name.verb'
  | 'owner.keyless'
  | 'entity.unreachable'
  | 'model.leftover'
  | 'value.unused'
  | 'model.empty';

/** A decision that derivation took because nobody had. */
export interface Assumption {
  /** Stable under renames, so that an answer is remembered. */
  readonly id: string;
  readonly question: string;
  /** What was read, or looked for in vain. */
  readonly ground: string;
  readonly options: readonly AssumptionOption[];
  /** Whether a setting answers it. */
  readonly settled: boolean;
  readonly reasons: Reasons;
}

export interface AssumptionOption {
  readonly label: string;
  /** Whether derivation took this one. */
  readonly assumed: boolean;
  readonly answer: Answer;
}

/** What choosing an option does. */
export type Answer =
  /** The design remembers that it was asked; nothing else changes. */
  | { readonly kind: 'accept' }
  | { readonly kind: 'edit'; readonly edit: ModelEdit }
  /** A name is asked for, and given by an edit of this kind. */
  | { readonly kind: 'name'; readonly of: 'name-role' | 'name-way-back'; readonly relationship: string }
  | { readonly kind: 'setting'; readonly name: SettingName; readonly value: string | number }
  /** Something is placed elsewhere in the arrangement. */
  | {
      readonly kind: 'placement';
      readonly of: SubjectKind;
      readonly subject: string;
      readonly place: Place;
    }
  /** A cell of the exposure grid goes back to what the model says. */
  | {
      readonly kind: 'exposure';
      readonly entity: string;
      readonly of: string;
      readonly aspect: Aspect;
    };
