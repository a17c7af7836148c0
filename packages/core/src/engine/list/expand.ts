import {
  indexContract,
  type Contract,
  type Expanded,
  type QueryParameter,
  type Shape,
} from '../../contract/index.js';
import { memoize } from '../../model/index.js';
import type { ProblemDetail } from '../message.js';

/** What is answered inside a record, by the name of the member; each with what is answered inside that. */
export type ExpandTree = ReadonlyMap<string, ExpandTree>;

export const NOTHING_EXPANDED: ExpandTree = new Map();

type ExpandParameter = Extract<QueryParameter, { role: 'expand' }>;

/** Reads `vessel,route.origin`: names separated by commas, each a path of names joined by dots. */
export function readExpand(
  contract: Contract,
  entity: string,
  parameter: ExpandParameter,
  text: string,
  errors: ProblemDetail[],
): ExpandTree {
  const tree = new Map<string, Map<string, ExpandTree>>();
  for (const path of text.split(',')) {
    const message = grow(contract, entity, parameter, tree, path);
    if (message !== null) errors.push({ parameter: parameter.name, code: 'expand', message });
  }
  return tree;
}

type Growing = Map<string, Growing>;

/** Adds one path; why it cannot, where it cannot. */
function grow(
  contract: Contract,
  entity: string,
  { depth }: ExpandParameter,
  tree: Map<string, ExpandTree>,
  path: string,
): string | null {
  const steps = path.split('.');
  if (steps.length > depth)
    return `${path.slice(0, 80)} has ${steps.length} steps; at most ${depth} are answered inside.`;
  let of = entity;
  let node = tree as Growing;
  for (const step of steps) {
    const known = expandedMembers(contract, of);
    const found = known.get(step);
    if (found === undefined) {
      const names = known.size === 0 ? 'there is nothing' : `there are ${[...known.keys()].join(', ')}`;
      return `${step === '' ? 'Nothing' : step.slice(0, 80)} cannot be answered inside; ${names}.`;
    }
    let child = node.get(step);
    if (child === undefined) {
      child = new Map();
      node.set(step, child);
    }
    node = child;
    of = found.entity;
  }
  return null;
}

const NO_MEMBERS: ReadonlyMap<string, Expanded> = new Map();
const expandedOf = memoize(
  ({ members }: Shape): ReadonlyMap<string, Expanded> =>
    new Map(
      members.flatMap(({ name, source }) => (source.kind === 'expanded' ? [[name, source] as const] : [])),
    ),
);

/** What can be answered inside the records of an entity, by the name of the member. */
export function expandedMembers(contract: Contract, entity: string): ReadonlyMap<string, Expanded> {
  const shape = indexContract(contract).shapes.get(entity);
  return shape === undefined ? NO_MEMBERS : expandedOf(shape);
}
