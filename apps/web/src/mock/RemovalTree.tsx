import type { RemovalNode } from '@isomeros/core/engine';

/** How many records go, with the one at the top. */
export const treeSize = ({ effect, records, below }: RemovalNode): number =>
  (effect === 'removed' ? records : 0) + below.reduce((sum, node) => sum + treeSize(node), 0);

interface Props {
  readonly tree: RemovalNode;
  /** What stands at the top. */
  readonly title: string;
}

/** What goes with a record, counted, each below what takes it along. */
export function RemovalTree({ tree, title }: Props): React.JSX.Element {
  return (
    <div className="removal-tree">
      <p className="strong">{title}</p>
      <Nodes nodes={tree.below} />
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
              {node.by?.kind === 'owns' ? node.by.role : node.type}{' '}
              <span className="quiet">
                {node.effect === 'detached' ? `let go of ${node.by?.role ?? ''}` : noteOf(node)}
              </span>
            </span>
            <span>{node.records}</span>
          </span>
          <Nodes nodes={node.below} />
        </li>
      ))}
    </ul>
  );
}

const noteOf = ({ by }: RemovalNode): string => (by?.kind === 'owns' ? 'owned' : `by ${by?.role ?? ''}`);
