import type {
  AlongStep,
  FilterOperator,
  FixedFilter,
  FixedValue,
  Operand,
  Settings,
  TokenRole,
} from '../arrangement/index.js';
import type { AggregateKind, Condition, ScalarType } from '../model/index.js';
import type { Reasons } from './reasons.js';
import type { Access, SecurityScheme } from './access.js';
import type { OperationDocumentation } from './documentation.js';

export type Verb =
  | 'entry'
  | 'list'
  | 'read'
  | 'create'
  | 'replace'
  | 'change'
  | 'remove'
  | 'attach'
  | 'detach'
  | 'transition'
  | 'custom';
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
  /** The ids of the tags it stands under; at least one. */
  readonly tags: readonly string[];
  /** What is said of it besides; `null` where nothing is. */
  readonly documentation: OperationDocumentation | null;
  readonly query: readonly QueryParameter[];
  /** How a list is answered; `null` for what is none. */
  readonly paging: PageForm | null;
  /** How a list is sorted where nobody asks; the key comes last. */
  readonly order: readonly OrderKey[];
  /** What happens to a query parameter that is not among them. */
  readonly unknownParameters: Settings['unknownParameters'];
  readonly access: Access;
  /** Whether a state must be named for it (RFC 9110 §13.1.1); it may be named for every operation. */
  readonly ifMatch: Settings['ifMatch'];
  /** Whether `Prefer: return=…` is honoured (RFC 7240 §4.2). */
  readonly prefers: boolean;
  /** What an `Idempotency-Key` means to it. */
  readonly idempotency: Settings['idempotency'];
  /** The media types a body is accepted in, first the preferred one; empty when no body is read. */
  readonly acceptedTypes: readonly string[];
  /** The shape of an accepted body. */
  readonly accepts: string | null;
  /** The shape of a successful answer's body. */
  readonly returns: string | null;
  readonly responses: readonly ResponseCase[];
  /** What an operation of one's own does; `null` for all that are derived. */
  readonly custom: Custom | null;
  readonly reasons: Reasons;
}

/** In which pages a list is answered, and how they and their totals are told. */
export type PageForm = Pick<Settings, 'totals' | 'oversize' | 'envelope'> & {
  readonly style: Settings['pageStyle'];
  /** The most records of a list without pages; `null` where it has pages, or everything. */
  readonly ceiling: number | null;
  /** What it is called where it is another form than that of the arrangement; empty where it is the same. */
  readonly variant: string;
};

/** The effect of an operation of one's own, everything in it resolved. */
export type Custom =
  | { readonly kind: 'query'; readonly filters: readonly CustomFilter[]; readonly limit: number }
  /** The first record that a query would list. */
  | { readonly kind: 'find'; readonly filters: readonly CustomFilter[] }
  /** What some records have, taken together. */
  | {
      readonly kind: 'aggregate';
      readonly of: AggregateKind;
      /** How the records are found from the item; none where they are those of the collection. */
      readonly along: readonly AlongStep[];
      /** The name of their entity. */
      readonly entity: string;
      /** What is taken, and its type; `null` where records are counted. */
      readonly taken: { readonly field: OwnField; readonly type: ScalarType } | null;
      /** The type of what it comes to. */
      readonly type: ScalarType;
      readonly filters: readonly CustomFilter[];
    }
  | { readonly kind: 'assign'; readonly when: Condition; readonly values: readonly CustomValue[] }
  | {
      readonly kind: 'create';
      readonly when: Condition;
      /** The name of the entity of the record that is made, and how it points at the one it is made for. */
      readonly entity: string;
      readonly relationship: string;
      readonly values: readonly CustomValue[];
    }
  | {
      readonly kind: 'many';
      /** Those that every filter keeps, or those whose ids the member of that name holds. */
      readonly over:
        | { readonly kind: 'condition'; readonly filters: readonly CustomFilter[] }
        | { readonly kind: 'ids'; readonly member: string };
      readonly does:
        | { readonly kind: 'assign'; readonly when: Condition; readonly values: readonly CustomValue[] }
        | { readonly kind: 'transition'; readonly transition: string };
      readonly answers: Settings['manyAnswers'];
    }
  /** Finds the record whose attributes equal what is sent. */
  | {
      readonly kind: 'verify';
      /** At least one of the attributes is unique. */
      readonly compared: readonly VerifiedAttribute[];
      readonly answers: { readonly kind: 'record' } | TokenAnswer;
    }
  /** Ends the token of the caller. */
  | { readonly kind: 'revoke' }
  /** The record that the token of the caller was handed out for. */
  | { readonly kind: 'caller' }
  | { readonly kind: 'fixed'; readonly body: FixedValue };

export interface VerifiedAttribute {
  /** The identity of the attribute, and its type. */
  readonly attribute: string;
  readonly type: ScalarType;
  /** The member of the body that it must equal. */
  readonly input: string;
}

export interface TokenAnswer {
  readonly kind: 'token';
  /** How it is presented. */
  readonly scheme: Exclude<SecurityScheme, 'basic'>;
  /** How long it holds. */
  readonly seconds: number;
  readonly role: TokenRole | null;
}

export interface CustomFilter {
  readonly field: OwnField;
  readonly type: ScalarType;
  readonly operator: FixedFilter['operator'];
  /** What is known from the start, the moment, or what the parameter of that name says. */
  readonly value: Operand | { readonly kind: 'input'; readonly name: string };
}

/** A value that a record gets whatever is sent; `null` unsets it. */
export interface CustomValue {
  readonly field: Exclude<OwnField, { kind: 'computed' }>;
  readonly value: Operand | ChosenBy | null;
}

/** A value by which of some words the input of that name is. */
export interface ChosenBy {
  readonly kind: 'chosen';
  readonly input: string;
  readonly options: readonly { readonly option: string; readonly value: Operand | null }[];
}

export type QueryParameter = {
  readonly name: string;
  readonly reasons: Reasons;
} & (
  | { readonly role: 'page' }
  | { readonly role: 'offset' }
  /** Opaque: where the last page ended. */
  | { readonly role: 'cursor' }
  | { readonly role: 'size'; readonly default: number; readonly max: number }
  | { readonly role: 'sort'; readonly keys: readonly SortKey[]; readonly style: SortSpelling }
  /** The direction of each key to sort by, as many as there are keys. */
  | { readonly role: 'order' }
  | {
      readonly role: 'filter';
      readonly field: Field;
      readonly type: ScalarType;
      /** At least one. */
      readonly operators: readonly FilterOperator[];
      readonly spelling: FilterSpelling;
      /** What the names of a family begin with; empty where it is none. */
      readonly family: string;
    }
  /** A text looked for in each of the fields. */
  | { readonly role: 'search'; readonly fields: readonly OwnField[] }
  /** Names of the members that are answered, separated by commas. */
  | { readonly role: 'fields'; readonly names: readonly string[] }
  /** Something that an operation of one's own compares; without a default it must be sent. */
  | { readonly role: 'input'; readonly type: ScalarType; readonly default: Operand | null }
  /** Names of related records to answer inside, separated by commas, each a path of names joined by dots. */
  | { readonly role: 'expand'; readonly names: readonly string[]; readonly depth: number }
);

/**
 * How an operator is written: `distance[gte]=5`, `distance__gte=5`, `filter[distance][gte]=5`, `distance=gte:5`.
 * Equality needs none.
 */
export type FilterSpelling = 'bracketed' | 'suffixed' | 'family' | 'in value';

/** How directions are written: `-a,b`; `a:desc,b`; `sort=a,desc&sort=b`; `sort=a,b&order=desc,asc`. */
export type SortSpelling = 'minus' | 'suffix' | 'repeated' | 'beside';

export interface SortKey {
  readonly name: string;
  readonly field: OwnField;
  readonly type: ScalarType;
}

/** A key of the order a list has where nobody asks for another. */
export interface OrderKey extends SortKey {
  readonly descending: boolean;
}

/** Where the value of a member or sort key is read from. */
export type OwnField =
  | { readonly kind: 'attribute'; readonly attribute: string }
  /** An attribute that is made of others, of the same record or of others as well. */
  | { readonly kind: 'computed'; readonly attribute: string; readonly reads: 'record' | 'others' }
  /** The key of the record that a relationship leads to. */
  | { readonly kind: 'reference'; readonly relationship: string; readonly entity: string }
  /** The key of the owner of the record. */
  | { readonly kind: 'owner'; readonly relationship: string; readonly entity: string };

/** What a filter compares: a field of the record, or of what the record points at. */
export type Field =
  | OwnField
  | {
      readonly kind: 'through';
      readonly relationship: string;
      readonly entity: string;
      readonly of: Field;
    };

export type ResponseCode =
  | 'ok'
  | 'minimal'
  | 'not-modified'
  | 'created'
  | 'attached'
  | 'removed'
  | 'malformed'
  | 'invalid'
  | 'bad-parameter'
  | 'version'
  | 'key-missing'
  | 'bad-id'
  | 'unauthenticated'
  | 'unmatched'
  | 'too-many'
  | 'forbidden'
  | 'missing'
  | 'not-acceptable'
  | 'conflict'
  | 'key-mismatch'
  | 'restricted'
  | 'state'
  | 'patch'
  | 'key-busy'
  | 'key-reused'
  | 'precondition'
  | 'precondition-missing'
  | 'too-large'
  | 'media-type';

export interface ResponseCase {
  readonly status: number;
  readonly code: ResponseCode;
  /** When it happens, in a sentence. */
  readonly when: string;
  readonly reasons: Reasons;
}
