import type { NarrowingStep } from '@isomeros/core/engine';
import { amount } from '../app/parts/amount.js';

/** So many names stand in a line; the others are counted. */
const MOST_NAMED = 4;

interface Props {
  readonly steps: readonly NarrowingStep[];
}

/** How the parts of a target narrowed the operations it may have been for, and why the others lost. */
export function MatchNarrowing({ steps }: Props): React.JSX.Element | null {
  const [first] = steps;
  if (first === undefined) return null;
  const lost = steps.flatMap((step) => step.lost);
  const all = lost.reduce((sum, { operations }) => sum + operations.length, 0);
  return (
    <div className="narrowing">
      <ol aria-label="Operations still possible after each part of the target">
        {steps.map(({ part, left }, index) => (
          <li key={index} className={left === 0 ? 'none' : index === steps.length - 1 ? 'last' : ''}>
            <span className="mono">{part}</span>
            <span className="count">{left}</span>
            <span
              className="share"
              style={{ width: `${first.left === 0 ? 0 : Math.max(2, (100 * left) / first.left)}%` }}
              aria-hidden
            />
          </li>
        ))}
      </ol>
      {all > 0 && (
        <details className="candidates">
          <summary>{amount(all, 'operation')} lost</summary>
          <table className="lost">
            <tbody>
              {lost.map(({ operations, why }, index) => (
                <tr key={index}>
                  <td className="number">{operations.length}</td>
                  <td>
                    {operations.slice(0, MOST_NAMED).join(', ')}
                    {operations.length > MOST_NAMED && ` and ${operations.length - MOST_NAMED} more`}
                  </td>
                  <td className="quiet">{why}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      )}
    </div>
  );
}
