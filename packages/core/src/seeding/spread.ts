import type { Children, SeedPlan } from './plan.js';
import type { Random } from './random.js';

const CHILDREN_AT_MOST = 4;
const USUAL_LIMIT = 60;

/** Each owner as often as it gets a record of an entity: by a plan, or as is usual. */
export function spreadOver(
  owners: readonly number[],
  entity: string,
  wanted: number,
  { counts, children }: SeedPlan,
  most: number,
  random: Random,
): number[] {
  if (owners.length === 0) return [];
  if (Object.hasOwn(counts, entity)) return Array.from({ length: wanted }, () => random.pick(owners));
  const planned = Object.hasOwn(children, entity) ? children[entity] : undefined;
  if (planned !== undefined) return childrenOf(owners, planned, most, random);
  return owners
    .flatMap((rid, index) =>
      Array.from({ length: index === 0 ? 3 : random.integer(0, CHILDREN_AT_MOST) }, () => rid),
    )
    .slice(0, USUAL_LIMIT);
}

function childrenOf(
  owners: readonly number[],
  { least, most, shape }: Children,
  mostInAll: number,
  random: Random,
): number[] {
  const spread: number[] = [];
  for (const owner of owners) {
    const drawn = random.next() ** (shape === 'tail' ? 4 : 1);
    const wanted = least + Math.floor(drawn * (most - least + 1));
    for (let made = 0; made < wanted && spread.length <= mostInAll; made++) spread.push(owner);
  }
  return spread;
}
