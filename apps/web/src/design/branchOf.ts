import type { Outline } from '@isomeros/core/contract';

/** A resource and all that stand below it in the path tree. Each resource stands before those below it. */
export function branchOf({ resources }: Outline, top: string): readonly string[] {
  const branch = new Set([top]);
  for (const { id, parent } of resources) if (parent !== null && branch.has(parent)) branch.add(id);
  return [...branch];
}
