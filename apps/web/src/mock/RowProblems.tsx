import type { RecordColumn } from '@isomeros/core/records';
import type { PendingEdit } from './recordEditsSlice.js';

interface Props extends Pick<PendingEdit, 'problems'> {
  readonly columns: readonly RecordColumn[];
}

/** Why an edit of a record was not written, told of its columns. */
export function RowProblems({ problems, columns }: Props): React.JSX.Element | null {
  if (problems.length === 0) return null;
  return (
    <p className="row-problems" role="alert">
      {problems.map(({ column, status, message }) => (
        <span key={`${column ?? ''} ${message}`}>
          {status !== null && <span className="strong">{status} </span>}
          {message}{' '}
          {column !== null && (
            <span className="mono">
              {column}: {columns.find(({ name }) => name === column)?.type}{' '}
            </span>
          )}
        </span>
      ))}
    </p>
  );
}
