import { indexContract, wholePath, type Contract, type Operation, type Resource } from '../contract/index.js';
import type { Aligned, Pair, IndexedContract } from './types.js';

/** Finds what stands at the same address: the same method, and a path that matches the same targets. Linear. */
export function align(earlier: Contract, later: Contract): Aligned {
  const [before, after] = [sideOf(earlier), sideOf(later)];
  const known = new Map(before.contract.operations.map((one) => [matchedBy(before, one), one]));
  const pairs: Pair[] = [];
  const added: Operation[] = [];
  const met = new Set<Operation>();
  for (const operation of after.contract.operations) {
    const was = known.get(matchedBy(after, operation));
    const resourceAfter = after.index.resources.get(operation.resource);
    const resourceBefore = was === undefined ? undefined : before.index.resources.get(was.resource);
    if (was === undefined || resourceBefore === undefined || resourceAfter === undefined) {
      added.push(operation);
      continue;
    }
    met.add(was);
    pairs.push({
      before: was,
      after: operation,
      resourceBefore,
      resourceAfter,
      where: `${operation.method} ${pathAt(after, operation.resource)}`,
    });
  }
  return { before, after, pairs, added, removed: before.contract.operations.filter((one) => !met.has(one)) };
}

const sideOf = (contract: Contract): IndexedContract => ({ contract, index: indexContract(contract) });

/** What requests an operation answers: what its ids are called does not matter. */
function matchedBy({ contract, index }: IndexedContract, { method, resource }: Operation): string {
  const segments = index.resources.get(resource)?.segments ?? [];
  const path = segments.map((segment) => (segment.kind === 'id' ? '/{}' : `/${segment.text}`)).join('');
  return `${method} ${contract.root}${path}`;
}

/** The path of a resource with the root, as a template: `/api/v1/routes`. */
export const pathAt = ({ contract }: IndexedContract, resource: string): string =>
  wholePath(contract, resource);

/** The resource of the later contract that stands for one of the earlier: itself, or the nearest above it. */
export function standsFor({ before, after }: Pick<Aligned, 'before' | 'after'>, resource: Resource): string {
  for (let at: Resource | undefined = resource; at !== undefined;) {
    if (after.index.resources.has(at.id)) return at.id;
    at = at.parent === null ? undefined : before.index.resources.get(at.parent);
  }
  return ENTRY;
}

export const ENTRY = 'entry';
