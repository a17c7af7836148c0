import type {
  DocumentedKind,
  MemberAspect,
  Placement,
  SettingLevel,
  SettingName,
  SettingValue,
} from '../arrangement/index.js';
import type { RuleId } from './rules/index.js';

/**
 * What a rule read: a statement of the model by its identity, a setting and the level it was set on, or where
 * something was placed.
 */
export type Source =
  | { readonly kind: 'statement'; readonly id: string }
  | {
      readonly kind: 'setting';
      readonly name: SettingName;
      readonly value: SettingValue;
      readonly level: SettingLevel;
    }
  | {
      readonly kind: 'placement';
      /** The identity of a statement; a way back adds `/back` to it. */
      readonly subject: string;
      readonly place: Placement;
      readonly level: 'default' | 'arrangement';
    }
  /** A path word that was chosen for a statement, or for its way back. */
  | {
      readonly kind: 'word';
      readonly subject: string;
      readonly word: string;
      readonly level: 'arrangement';
    }
  /** An operation of one's own. */
  | { readonly kind: 'custom'; readonly id: string; readonly name: string; readonly level: 'arrangement' }
  /** What was chosen for a link of a resource, in words. */
  | {
      readonly kind: 'link';
      readonly resource: string;
      readonly link: string;
      readonly choice: string;
      readonly level: 'arrangement';
    }
  /** A link of one's own. */
  | {
      readonly kind: 'own-link';
      readonly id: string;
      /** The id of the resource that offers it. */
      readonly resource: string;
      readonly relation: string;
      readonly level: 'arrangement';
    }
  /** What is said of something, by the fields that are. */
  | {
      readonly kind: 'documentation';
      readonly of: DocumentedKind;
      readonly subject: string;
      readonly fields: readonly string[];
      readonly level: 'arrangement';
    }
  /** A release, by its label. */
  | { readonly kind: 'release'; readonly label: string }
  /** A cell of the exposure grid that was chosen, or what a member is called. */
  | {
      readonly kind: 'exposure';
      readonly entity: string;
      readonly of: string;
      readonly aspect: MemberAspect;
      /** What was chosen, in words; not told by what was frozen before it was kept. */
      readonly value?: string;
      readonly level: 'arrangement';
    };

/** A decision about a design or an arrangement, which can be taken back. */
export type CitedDecision = Extract<
  Source,
  { kind: 'setting' | 'placement' | 'word' | 'exposure' | 'custom' | 'link' | 'own-link' | 'documentation' }
>;

/** Why an element of a contract is there. */
export interface Reason {
  readonly rule: RuleId;
  readonly because: readonly Source[];
}

export type Reasons = readonly Reason[];
