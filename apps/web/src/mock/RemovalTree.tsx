import type { RemovalNode } from '@isomeros/core/engine';

/** How many records go, with the one at the top. */
export const treeSize = ({ effect, records, below }: RemovalNode): number =>
  (effect === 'removed' ? records : 0) + below.reduce((sum, node) => sum + treeSize(node), 0);

interface Props {
  /** What is at the top, each with what goes with it. */
  readonly trees: readonly RemovalNode[];
}

/** What goes with records, counted, each below what takes it along. */
export function RemovalTree({ trees }: Props): React.JSX.Element {
  return (
    <div className="removal-tree">
      <Nodes nodes={trees} />
    </div>
  );
}

function Nodes({ nodes }: { readonly nodes: readonly RemovalNode[] }): React.JSX.Element | null {
  if (nodes.length === 0) return null;
  return (
    <ul>
      {nodes.map((node, index) => (
        <li key={index}>
          <span className="node">
            <span>
              <span className={node.by === null ? 'strong' : ''}>
                {node.by?.kind === 'owns' ? node.by.role : node.type}
              </span>{' '}
              <span className="quiet">{noteOf(node)}</span>
            </span>
            <span>{node.records}</span>
          </span>
          <Nodes nodes={node.below} />
        </li>
      ))}
    </ul>
  );
}

function noteOf({ by, effect }: RemovalNode): string {
  if (by === null) return '';
  if (effect === 'detached') return `let go of ${by.role}`;
  return by.kind === 'owns' ? 'owned' : `by ${by.role}`;
}
