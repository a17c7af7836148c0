import {
  indexModel,
  isSingleton,
  nearest,
  ownsItself,
  type Attribute,
  type EntityStorage,
  type Model,
} from '../model/index.js';

/** How many records each record of an owner gets. */
export interface Children {
  readonly least: number;
  readonly most: number;
  /** `even`: every number is as likely as any other; `tail`: most have few, few have many. */
  readonly shape: 'even' | 'tail';
}

/** What is wanted of seed records; what is not named gets what is usual. */
export interface SeedPlan {
  /** How many records of an entity, by its name. */
  readonly counts: { readonly [name: string]: number };
  /** How many records of an entity each of their owners gets, by its name. */
  readonly children: { readonly [name: string]: Children };
  /** How often each option of a choice is to be met, by `Entity.attribute`. */
  readonly shares: { readonly [name: string]: { readonly [name: string]: number } };
}

export const USUAL_PLAN: SeedPlan = { counts: {}, children: {}, shares: {} };

const USUAL_COUNT = 12;

/** How many records of a kind a plan wants. */
export function wantedCount({ counts }: SeedPlan, { entity, singleConstraint }: EntityStorage): number {
  if (singleConstraint !== null) return 1;
  return Object.hasOwn(counts, entity.name) ? (counts[entity.name] ?? 0) : USUAL_COUNT;
}

/** More children an owner does not get. */
export const MOST_CHILDREN = 10_000;

export interface PlanProblem {
  /** Names of members from the outside in: `children`, `Booking`, `most`. */
  readonly path: readonly string[];
  readonly code: 'unknown' | 'range' | 'conflict';
  readonly message: string;
}

/** What of a plan does not fit a model, or the number of records there may be. */
export function planProblems(model: Model, plan: SeedPlan, most: number): readonly PlanProblem[] {
  const all = Object.values(plan.counts).reduce((sum, count) => sum + count, 0);
  const counts = Object.entries(plan.counts).flatMap(([name, count]) =>
    countProblems(model, name, count, most),
  );
  return [
    ...counts,
    ...Object.entries(plan.children).flatMap(([name, wanted]) => childrenProblems(model, plan, name, wanted)),
    ...Object.entries(plan.shares).flatMap(([name, shares]) => shareProblems(model, name, shares)),
    ...(all > most && counts.length === 0
      ? [
          {
            path: ['counts'],
            code: 'range' as const,
            message: `A mock holds at most ${most} records; these counts add up to ${all}.`,
          },
        ]
      : []),
  ];
}

function unknownEntity(model: Model, name: string, path: readonly string[]): PlanProblem[] {
  const names = [...indexModel(model).entities.keys()];
  if (names.includes(name)) return [];
  const near = nearest(name, names);
  const hint = near === null ? '' : ` The nearest is ${near}.`;
  return [{ path, code: 'unknown', message: `There is no entity ${name}.${hint}` }];
}

const isWhole = (value: number, most: number): boolean =>
  Number.isInteger(value) && value >= 0 && value <= most;

function countProblems(model: Model, name: string, count: number, most: number): PlanProblem[] {
  const path = ['counts', name];
  const unknown = unknownEntity(model, name, path);
  if (unknown.length > 0) return unknown;
  if (indexModel(model).entities.get(name)?.single === true)
    return count === 1 ? [] : [{ path, code: 'conflict', message: `There is always one ${name}.` }];
  if (isWhole(count, most)) return [];
  return [{ path, code: 'range', message: `Expected a whole number from 0 to ${most}.` }];
}

function childrenProblems(model: Model, plan: SeedPlan, name: string, wanted: Children): PlanProblem[] {
  const path = ['children', name];
  const unknown = unknownEntity(model, name, path);
  if (unknown.length > 0) return unknown;
  const index = indexModel(model);
  const owner = index.ownerOf.get(name);
  if (owner === undefined || ownsItself(owner) || isSingleton(index, name))
    return [{ path, code: 'conflict', message: `${name} is not owned by another entity that has many.` }];
  if (Object.hasOwn(plan.counts, name))
    return [{ path, code: 'conflict', message: `${name} has a number of its own already.` }];
  const { least, most } = wanted;
  if (isWhole(least, MOST_CHILDREN) && isWhole(most, MOST_CHILDREN) && least <= most) return [];
  const message = `Expected whole numbers from 0 to ${MOST_CHILDREN}, the smaller one first.`;
  return [{ path, code: 'range', message }];
}

function shareProblems(
  model: Model,
  name: string,
  shares: { readonly [name: string]: number },
): PlanProblem[] {
  const path = ['shares', name];
  const attribute = choiceNamed(model, name);
  if (attribute?.type.kind !== 'choice')
    return [{ path, code: 'unknown', message: `${name} is no choice of an entity: Entity.attribute.` }];
  const { options } = attribute.type;
  const wrong = Object.entries(shares).flatMap(([option, share]): PlanProblem[] => {
    const at = [...path, option];
    if (!options.includes(option))
      return [{ path: at, code: 'unknown', message: `Expected one of ${options.join(', ')}.` }];
    return Number.isFinite(share) && share >= 0 && share <= 1_000_000
      ? []
      : [{ path: at, code: 'range', message: 'Expected a share from 0 to 1000000.' }];
  });
  if (wrong.length > 0 || Object.values(shares).some((share) => share > 0)) return wrong;
  return [{ path, code: 'range', message: 'Expected at least one share above 0.' }];
}

function choiceNamed(model: Model, name: string): Attribute | undefined {
  const [entity = '', attribute] = name.split('.');
  return indexModel(model)
    .entities.get(entity)
    ?.attributes.find((candidate) => candidate.name === attribute);
}

/** How many records are wanted where so many places are there for them: what fills slots may be wanted too often. */
export function wantedWithin({ counts }: SeedPlan, { entity, owner }: EntityStorage, places: number): number {
  const asked = counts[entity.name];
  return asked === undefined || owner === null || owner.cardinality === 'many'
    ? places
    : Math.max(asked, places);
}
