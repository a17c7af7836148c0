import type { Method, OutlineOperation } from '@isomeros/core/contract';
import { EffectMark } from './EffectMark.js';

/** Which of the four columns of marks an operation stands in. */
const COLUMN: Readonly<Record<Method, number>> = { GET: 1, POST: 2, PUT: 2, PATCH: 3, DELETE: 4 };

/** What a path can do, each operation in the column of its method. */
export function OperationMarks({
  operations,
}: {
  readonly operations: readonly OutlineOperation[];
}): React.JSX.Element {
  return (
    <span className="tree-operations">
      {operations.map(({ id, verb, effect, method }) => (
        <span key={id} className="tree-operation" style={{ gridColumn: COLUMN[method] }} title={id}>
          <EffectMark effect={effect} /> {verb}
        </span>
      ))}
    </span>
  );
}
