import {
  ASPECTS,
  usualOperators,
  type Aspect,
  type Exposure,
  type ExposureChoice,
  type FilterOperator,
  type MemberAspect,
} from '../../arrangement/index.js';
import type { Reason } from '../../contract/index.js';
import { entryOf, type Entity, type ScalarType } from '../../model/index.js';
import { isScalar, type AttributeTraits } from './traits.js';

/** What may be chosen for each aspect of a member; the first of them holds where nobody chose. */
export type ExposureOptions = { readonly [A in Exclude<Aspect, 'filter'>]: readonly Exposure[A][] } & {
  /** All the operators there are for it. */
  readonly filter: readonly FilterOperator[];
};

const EQUAL: readonly FilterOperator[] = ['eq', 'ne', 'in'];
const ORDERED: readonly FilterOperator[] = ['lt', 'lte', 'gt', 'gte'];
const TEXT: readonly FilterOperator[] = ['contains', 'icontains', 'starts'];

const OF_TEXT: readonly FilterOperator[] = [...EQUAL, ...TEXT];
const OF_ORDER: readonly FilterOperator[] = [...EQUAL, ...ORDERED];
const OF_BOOLEAN: readonly FilterOperator[] = ['eq'];

function operatorsOf(type: ScalarType): readonly FilterOperator[] {
  switch (type.kind) {
    case 'boolean':
      return OF_BOOLEAN;
    case 'choice':
    case 'uuid':
    case 'duration':
      return EQUAL;
    case 'text':
    case 'email':
    case 'uri':
      return OF_TEXT;
    case 'integer':
    case 'decimal':
    case 'date':
    case 'time':
    case 'instant':
      return OF_ORDER;
  }
}

const withUnset = (operators: readonly FilterOperator[]): readonly FilterOperator[] => [
  ...operators,
  'unset',
];

/** Made once each: derivation asks for them at every member. */
const UNSET = new Map<readonly FilterOperator[], readonly FilterOperator[]>();

/** The operators a member can be filtered by. */
function filterOperators({ type, source, required }: AttributeTraits): readonly FilterOperator[] {
  if (!isScalar(type)) return NONE;
  const own = source.kind === 'attribute' || source.kind === 'computed' ? operatorsOf(type) : EQUAL;
  if (required) return own;
  return entryOf(UNSET, own, () => withUnset(own));
}

/** Texts are looked through; what has a fixed form is compared as a whole. */
const isSearchable = ({ type, source }: AttributeTraits): boolean =>
  source.kind === 'attribute' && (type.kind === 'text' || type.kind === 'email' || type.kind === 'uri');

const NONE: readonly FilterOperator[] = [];
const YES = ['yes'] as const;
const NO = ['no'] as const;
const SHOWN = ['yes', 'no'] as const;
const MUST = ['must'] as const;
const MUST_OR_NO = ['must', 'no'] as const;
const FREE = ['may', 'must', 'no'] as const;
const MAY = ['may', 'no'] as const;

/** Made once each, too. */
const USUAL = new Map<readonly FilterOperator[], readonly FilterOperator[]>();

const usualFilter = (all: readonly FilterOperator[]): readonly FilterOperator[] =>
  entryOf(USUAL, all, () => usualOperators(all));

/** What the flags of the model leave to choose. `isShown`: a read returns it. */
export function optionsOf(trait: AttributeTraits, isShown: boolean): ExposureOptions {
  const mustBeSent = trait.required && !trait.supplied;
  // What others decide would have to be worked out for every record.
  const readsOthers = trait.source.kind === 'computed' && trait.source.reads === 'others';
  const isComparable = isShown && isScalar(trait.type) && !readsOthers;
  return {
    out: trait.returned ? (trait.isKey ? YES : SHOWN) : NO,
    list: !isShown ? NO : trait.isKey ? YES : SHOWN,
    create: !trait.onCreate ? NO : trait.isKey ? MUST : mustBeSent ? MUST_OR_NO : FREE,
    replace: !trait.onReplace ? NO : mustBeSent && isShown ? MUST_OR_NO : FREE,
    change: trait.onReplace ? MAY : NO,
    filter: isComparable ? filterOperators(trait) : NONE,
    sort: isComparable ? SHOWN : NO,
    search: isShown && isSearchable(trait) ? SHOWN : NO,
  };
}

/** What goes in and what comes out of a member. What was chosen and the model does not allow counts as not chosen. */
export function exposureOf(trait: AttributeTraits, choice: ExposureChoice): Exposure {
  const ifShown = optionsOf(trait, trait.returned);
  const out = pick(ifShown.out, choice.out);
  const options = trait.returned && out === 'no' ? optionsOf(trait, false) : ifShown;
  const { filter } = choice;
  return {
    out,
    list: pick(options.list, choice.list),
    create: pick(options.create, choice.create),
    replace: pick(options.replace, choice.replace),
    change: pick(options.change, choice.change),
    filter:
      filter === undefined
        ? usualFilter(options.filter)
        : options.filter.filter((operator) => filter.includes(operator)),
    sort: pick(options.sort, choice.sort),
    search: pick(options.search, choice.search),
  };
}

function pick<T>(options: readonly T[], chosen: T | undefined): T {
  const [usual] = options;
  if (usual === undefined) throw new Error('There is nothing to choose from.');
  return chosen === undefined ? usual : (options.find((option) => option === chosen) ?? usual);
}

/** The identity under which what was chosen for a member is filed. */
export const memberId = ({ source }: Pick<AttributeTraits, 'source'>): string =>
  source.kind === 'attribute' || source.kind === 'computed' ? source.attribute : source.relationship;

/** The aspects of a member that somebody chose, and its name, as reasons. */
export function exposureReasons(
  entity: Entity,
  trait: AttributeTraits,
  choice: ExposureChoice,
): readonly Reason[] {
  const of = memberId(trait);
  const aspects = ['name', ...ASPECTS] as const;
  return aspects
    .filter((aspect) => choice[aspect] !== undefined)
    .map((aspect) => ({
      rule: aspect === 'name' ? 'member.called' : 'member.exposed',
      because: [
        {
          kind: 'exposure',
          entity: entity.id,
          of,
          aspect,
          value: chosenText(choice[aspect]),
          level: 'arrangement',
        },
      ],
    }));
}

const chosenText = (chosen: ExposureChoice[MemberAspect]): string =>
  chosen === undefined || typeof chosen === 'string' ? (chosen ?? '') : chosen.join(', ') || 'none';
