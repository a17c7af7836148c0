import {
  ASPECTS,
  exposureChoice,
  type Aspect,
  type Exposure,
  type ExposureChoice,
  type FilterOperator,
} from '../../arrangement/index.js';
import type { Reason } from '../../contract/index.js';
import type { Entity, ScalarType } from '../../model/index.js';
import type { Deriving } from '../context.js';
import { isScalar, type BareTrait } from './traits.js';

/** What may be chosen for each aspect of a member; the first of them holds where nobody chose. */
export type ExposureOptions = { readonly [A in Exclude<Aspect, 'filter'>]: readonly Exposure[A][] } & {
  /** All the operators there are for it. */
  readonly filter: readonly FilterOperator[];
};

const EQUAL: readonly FilterOperator[] = ['eq', 'ne', 'in'];
const ORDERED: readonly FilterOperator[] = ['lt', 'lte', 'gt', 'gte'];
const TEXT: readonly FilterOperator[] = ['contains', 'starts'];

function operatorsOf(type: ScalarType): readonly FilterOperator[] {
  switch (type.kind) {
    case 'boolean':
      return ['eq'];
    case 'choice':
    case 'uuid':
    case 'duration':
      return EQUAL;
    case 'text':
    case 'email':
    case 'uri':
      return [...EQUAL, ...TEXT];
    case 'integer':
    case 'decimal':
    case 'date':
    case 'time':
    case 'instant':
      return [...EQUAL, ...ORDERED];
  }
}

/** The operators a member can be filtered by. */
export function filterOperators({ type, source, required }: BareTrait): readonly FilterOperator[] {
  if (!isScalar(type)) return [];
  const own = source.kind === 'attribute' ? operatorsOf(type) : EQUAL;
  return required ? own : [...own, 'unset'];
}

/** What the flags of the model leave to choose. `isShown`: a read returns it. */
export function optionsOf(trait: BareTrait, isShown: boolean): ExposureOptions {
  const mustBeSent = trait.required && !trait.supplied;
  const isComparable = isShown && isScalar(trait.type);
  return {
    out: trait.returned ? (trait.isKey ? ['yes'] : ['yes', 'no']) : ['no'],
    list: !isShown ? ['no'] : trait.isKey ? ['yes'] : ['yes', 'no'],
    create: !trait.onCreate
      ? ['no']
      : trait.isKey
        ? ['must']
        : mustBeSent
          ? ['must', 'no']
          : ['may', 'must', 'no'],
    replace: !trait.onReplace ? ['no'] : mustBeSent && isShown ? ['must', 'no'] : ['may', 'must', 'no'],
    change: trait.onReplace ? ['may', 'no'] : ['no'],
    filter: isComparable ? filterOperators(trait) : [],
    sort: isComparable ? ['yes', 'no'] : ['no'],
  };
}

/** What goes in and what comes out of a member. What was chosen and the model does not allow counts as not chosen. */
export function exposureOf(trait: BareTrait, choice: ExposureChoice): Exposure {
  const out = pick(optionsOf(trait, true).out, choice.out);
  const options = optionsOf(trait, out === 'yes');
  const { filter } = choice;
  return {
    out,
    list: pick(options.list, choice.list),
    create: pick(options.create, choice.create),
    replace: pick(options.replace, choice.replace),
    change: pick(options.change, choice.change),
    filter:
      filter === undefined ? options.filter : options.filter.filter((operator) => filter.includes(operator)),
    sort: pick(options.sort, choice.sort),
  };
}

function pick<T>(options: readonly T[], chosen: T | undefined): T {
  const [usual] = options;
  if (usual === undefined) throw new Error('There is nothing to choose from.');
  return options.find((option) => option === chosen) ?? usual;
}

/** The identity under which what was chosen for a member is filed. */
export const memberId = ({ source }: Pick<BareTrait, 'source'>): string =>
  source.kind === 'attribute' ? source.attribute : source.relationship;

/** The aspects of a member that somebody chose, as reasons. */
export function exposureReasons(deriving: Deriving, entity: Entity, trait: BareTrait): readonly Reason[] {
  const of = memberId(trait);
  const choice = exposureChoice(deriving.arrangement.exposures, entity.id, of);
  return ASPECTS.filter((aspect) => choice[aspect] !== undefined).map((aspect) => ({
    rule: 'member.exposed',
    because: [{ kind: 'exposure', entity: entity.id, of, aspect, level: 'arrangement' }],
  }));
}
