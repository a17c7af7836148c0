import { ConsequenceCounts, ConsequenceDetails } from './ConsequenceLines.js';
import { NOWHERE, ROOT } from './moves.js';
import type { MovingControl } from './useMoving.js';

interface Props {
  readonly control: MovingControl;
  /** The path of a resource, root included. */
  readonly pathOf: (resource: string) => string;
}

/** What would follow from letting a branch go where it is now: one line a place it could get there. */
export function MovePanel({ control, pathOf }: Props): React.JSX.Element {
  const { moving, consequenceOf, choose, finish, cancel } = control;
  const target = moving?.target ?? null;
  const where =
    target === null
      ? 'Nothing here'
      : target === NOWHERE
        ? 'If it is not exposed'
        : target === ROOT
          ? 'If you let go at the root'
          : `If you let go at ${pathOf(target)}`;
  const consequence = moving?.chosen == null ? null : consequenceOf(moving.chosen);
  return (
    <section className="move-panel" aria-label="What would follow" aria-live="polite">
      <header className="panel-head">
        <h2>{moving?.moves.length === 0 ? 'It stays where it is' : where}</h2>
        <span className="end quiet">
          {(moving?.moves.length ?? 0) > 1 && (
            <>
              <kbd>1</kbd>–<kbd>{moving?.moves.length}</kbd> choose{' '}
            </>
          )}
          <kbd>Enter</kbd> takes it <kbd>Esc</kbd> puts it back
        </span>
      </header>
      <ol>
        {moving?.moves.map((move, index) => (
          <li key={move.place} aria-current={move === moving.chosen}>
            <button
              type="button"
              className="plain-button"
              onClick={() => {
                choose(index);
                if (move === moving.chosen) finish();
              }}
            >
              <kbd>{index + 1}</kbd> <span className="strong">{move.label}</span>{' '}
              <span className="quiet">{move.means}</span>
            </button>
            <ConsequenceCounts consequence={consequenceOf(move)} of="path" />
          </li>
        ))}
      </ol>
      {consequence !== null && <ConsequenceDetails summary={consequence.summary} />}
      <button type="button" className="text-button put-back" onClick={cancel}>
        Put it back
      </button>
    </section>
  );
}
