import type { Contract, Method } from '@isomeros/core/contract';
import { EffectMark } from '../app/parts/EffectMark.js';
import { RowList } from '../app/parts/RowList.js';
import { treeRows, type TreeRow } from '../app/parts/treeRows.js';

interface Props {
  readonly contract: Contract;
  readonly selected: string | null;
  readonly isNew: (path: string) => boolean;
  readonly onSelect: (row: TreeRow) => void;
  readonly onOpen: (row: TreeRow) => void;
}

/** Which of the four columns of marks an operation stands in. */
const COLUMN: Readonly<Record<Method, number>> = { GET: 1, POST: 2, PUT: 2, PATCH: 3, DELETE: 4 };

/** The paths a model implies, as a tree with the operations of each. */
export function PathTree({ contract, selected, isNew, onSelect, onOpen }: Props): React.JSX.Element {
  return (
    <RowList
      label="Path tree"
      rows={treeRows(contract)}
      rowKey={({ resource }) => resource.id}
      rowHeight={20}
      selected={selected}
      onSelect={onSelect}
      onOpen={onOpen}
      rowClass={({ resource }) => (isNew(resource.path) ? 'new' : '')}
    >
      {({ level, tail, operations, resource }) => (
        <>
          <span
            className="tree-path mono"
            style={{ paddingLeft: level * 14 }}
            title={contract.root + resource.path}
          >
            {level === 0 ? contract.root : tail}
          </span>
          <span className="tree-operations">
            {operations.map(({ id, verb, effect, method }) => (
              <span key={id} className="tree-operation" style={{ gridColumn: COLUMN[method] }} title={id}>
                <EffectMark effect={effect} /> {verb}
              </span>
            ))}
          </span>
        </>
      )}
    </RowList>
  );
}
