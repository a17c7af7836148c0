import type { LinkMap, LinkedPlace } from '../../design/derivation/linkMap.js';

/** Where an arrow key leads from a resource: back and on along first ways, up and down in its column. */
export function neighbourOf({ nodes }: LinkMap, node: LinkedPlace | undefined, key: string): string | null {
  if (node === undefined) return null;
  const column = nodes.filter(({ requests }) => requests === node.requests).sort((a, b) => a.y - b.y);
  const at = column.indexOf(node);
  switch (key) {
    case 'ArrowLeft':
      return node.above;
    case 'ArrowRight':
      return nodes.filter(({ above }) => above === node.id).sort((a, b) => a.y - b.y)[0]?.id ?? null;
    case 'ArrowUp':
      return column[at - 1]?.id ?? null;
    case 'ArrowDown':
      return column[at + 1]?.id ?? null;
    case 'Home':
      return column[0]?.id ?? null;
    case 'End':
      return column.at(-1)?.id ?? null;
    default:
      return null;
  }
}
