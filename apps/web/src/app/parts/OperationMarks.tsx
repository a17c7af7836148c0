import type { Method } from '@isomeros/core/contract';
import { EffectMark } from './EffectMark.js';
import { operationsOf, type AbleTo } from './operationsOf.js';
import type { OutlineRow } from './outlineRows.js';

/** Which of the four columns of marks an operation stands in. */
const COLUMN: Readonly<Record<Method, number>> = { GET: 1, POST: 2, PUT: 2, PATCH: 3, DELETE: 4 };

interface Props {
  readonly row: OutlineRow;
  /** Leaves an operation out, or offers it again; marks cannot be pressed where nothing is given. */
  readonly onToggle?: (operation: AbleTo) => void;
}

/** What a path can do, each operation in the column of its method; what is left out is struck. */
export function OperationMarks({ row, onToggle }: Props): React.JSX.Element {
  return (
    <span className="tree-operations">
      {operationsOf(row).map((operation, index) => {
        const { id, verb, method, effect, leavable } = operation;
        const look = id === null ? 'tree-operation left-out' : 'tree-operation';
        const style = { gridColumn: COLUMN[method] };
        const mark = (
          <>
            <EffectMark effect={effect} /> {verb}
          </>
        );
        if (onToggle === undefined || leavable === null)
          return (
            <span key={verb} className={look} style={style} title={id ?? `${verb} is left out`}>
              {mark}
            </span>
          );
        return (
          <button
            key={verb}
            type="button"
            tabIndex={-1}
            className={look}
            style={style}
            title={
              id === null
                ? `${verb} is left out; press it, or ${index + 1}, to offer it again`
                : `${id}; press it, or ${index + 1}, to leave it out`
            }
            aria-label={id === null ? `Offer ${verb} again` : `Leave out ${verb}, ${id}`}
            onClick={(event) => {
              event.stopPropagation();
              onToggle(operation);
            }}
          >
            {mark}
          </button>
        );
      })}
    </span>
  );
}
