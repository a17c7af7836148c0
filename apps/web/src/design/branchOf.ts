import type { Outline, ResourceKind } from '@isomeros/core/contract';

/**
 * A resource and all that stand below it in the path tree, or those of some kinds among them. Each resource stands
 * before those below it.
 */
export function branchOf(
  { resources }: Outline,
  top: string,
  kinds: ReadonlySet<ResourceKind> | null = null,
): readonly string[] {
  const branch = new Set([top]);
  for (const { id, parent } of resources) if (parent !== null && branch.has(parent)) branch.add(id);
  return resources.flatMap(({ id, kind }) => (branch.has(id) && (kinds?.has(kind) ?? true) ? [id] : []));
}
