import type {
  ChoosableSetting,
  CustomOperation,
  DocumentedKind,
  LinkChoice,
  MemberAspect,
  OwnLink,
  Placement,
  SettingValue,
  SubjectKind,
  NamedExample,
} from '../arrangement/index.js';
import type { ModelEdit } from '../model/index.js';
import type { CitedDecision, Reasons } from './reasons.js';

/** `breaking` is what breaks a release. */
export type Severity = 'breaking' | 'error' | 'doubtful';

/** Something wrong or doubtful in the contract. */
export interface Finding {
  readonly id: FindingId;
  readonly severity: Severity;
  readonly message: string;
  /** The resource, operation or statement it concerns. */
  readonly about: string;
  readonly reasons: Reasons;
  /** The decision it comes from, where it comes from one. */
  readonly cause?: CitedDecision;
  /** Edits that would do away with it, where there are any. */
  readonly quickFixes?: readonly QuickFix[];
}

export interface QuickFix {
  /** What it does, as a button would say it. */
  readonly title: string;
  readonly answer: Extract<
    Answer,
    {
      kind:
        | 'edit'
        | 'placement'
        | 'exposure'
        | 'word'
        | 'setting'
        | 'custom'
        | 'link'
        | 'own-link'
        | 'documentation'
        | 'said'
        | 'example';
    }
  >;
}

export type FindingId =
  | 'path.collide'
  | 'path.shadows'
  | 'path.mixed'
  | 'plural.kept'
  | 'custom.unfit'
  | 'custom.repeats'
  | 'custom.one'
  | 'custom.guarded'
  | 'single.impossible'
  | 'computed.tells'
  | 'member.collide'
  | 'parameter.reserved'
  | 'create.impossible'
  | 'depth.exceeded'
  | 'depth.moved'
  | 'key.scoped-reference'
  | 'key.scoped-root'
  | 'create.withheld'
  | 'operation.collide'
  | 'create.left-out'
  | 'list.left-out'
  | 'remove.left-out'
  | 'transition.left-out'
  | 'member.unseen'
  | 'condition.constant'
  | 'list.unbounded'
  | 'list.order'
  | 'list.filters'
  | 'list.dead-end'
  | 'children.unlinked'
  | 'documentation.lost'
  | 'documentation.dangling'
  | 'documentation.missing'
  | 'example.unfit'
  | 'link.unfit'
  | 'link.idle'
  | 'link.unreachable'
  | 'link.dead-end'
  | 'link.off'
  | 'name.verb'
  | 'owner.keyless'
  | 'entity.unreachable'
  | 'model.leftover'
  | 'value.unused'
  | 'model.empty'
  | 'release.broken';

/** Tells findings of one contract, or of two, apart: a release can be broken at one place in several ways. */
export const findingKey = ({ id, about, message }: Finding): string =>
  id === 'release.broken' ? `${id} ${message}` : `${id} ${about}`;

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
  /** Of the design, or of a resource where one is named. */
  | {
      readonly kind: 'setting';
      readonly name: ChoosableSetting;
      readonly value: SettingValue;
      readonly resource?: string;
    }
  /** Something is placed elsewhere in the arrangement. */
  | {
      readonly kind: 'placement';
      readonly of: SubjectKind;
      readonly subject: string;
      readonly place: Placement;
    }
  /** Something is called otherwise in the arrangement. */
  /** An operation of one's own that does something else. */
  | { readonly kind: 'custom'; readonly operation: CustomOperation }
  /** Something else is decided about a link; `null`: it is as it is derived. */
  | {
      readonly kind: 'link';
      readonly resource: string;
      readonly link: string;
      readonly choice: LinkChoice | null;
    }
  /** What is said of something is said of something else, or dropped where that is `null`. */
  | {
      readonly kind: 'documentation';
      readonly of: DocumentedKind;
      readonly subject: string;
      readonly to: string | null;
    }
  /** Something else is said in a field, or nothing where that is `null`. */
  | {
      readonly kind: 'said';
      readonly of: DocumentedKind;
      readonly subject: string;
      readonly field: string;
      readonly text: string | null;
    }
  /** An example that is another; `null` takes it away. */
  | { readonly kind: 'example'; readonly id: string; readonly example: NamedExample | null }
  /** A link of one's own that leads somewhere else; `null` takes it away. */
  | { readonly kind: 'own-link'; readonly id: string; readonly link: OwnLink | null }
  | { readonly kind: 'word'; readonly subject: string; readonly word: string | null }
  /** A cell of the exposure grid goes back to what the model says. */
  | {
      readonly kind: 'exposure';
      readonly entity: string;
      readonly of: string;
      readonly aspect: MemberAspect;
    };
