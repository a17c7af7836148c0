import type { ChangeSummary } from '@isomeros/core/comparison';
import type { Finding } from '@isomeros/core/contract';
import type { Consequence } from '../design/derivation/protocol.js';
import { NOWHERE, ROOT, type Move } from './moves.js';
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
            <Counts consequence={consequenceOf(move)} move={move} />
          </li>
        ))}
      </ol>
      {consequence !== null && <Details summary={consequence.summary} />}
      <button type="button" className="text-button put-back" onClick={cancel}>
        Put it back
      </button>
    </section>
  );
}

function Counts({
  consequence,
}: {
  readonly consequence: Consequence | null;
  readonly move: Move;
}): React.JSX.Element {
  if (consequence === null) return <span className="quiet counts">working it out</span>;
  const { pathsAdded, pathsRemoved, findingsAdded } = consequence.summary;
  const breaks = findingsAdded.filter(isBreaking).length;
  return (
    <span className="counts">
      {breaks > 0 && <span className="breaks">breaks a release in {breaks}, </span>}
      {pathsRemoved.length} removed, {pathsAdded.length} added
    </span>
  );
}

const isBreaking = ({ severity }: Finding): boolean => severity === 'breaking';

/** Operations and findings that would come, go, or be called otherwise. */
function Details({ summary }: { readonly summary: ChangeSummary }): React.JSX.Element | null {
  const { operationsAdded, operationsRemoved, operationsRenamed, findingsAdded, findingsRemoved } = summary;
  const [breaks, others] = [
    findingsAdded.filter(isBreaking),
    findingsAdded.filter((one) => !isBreaking(one)),
  ];
  const lines = [
    ...breaks.slice(0, MOST).map(({ message }) => message),
    ...(breaks.length > MOST ? [`Breaks it in ${breaks.length - MOST} more.`] : []),
    ...(operationsRemoved.length === 0 ? [] : [`Operations removed: ${some(operationsRemoved)}`]),
    ...(operationsAdded.length === 0 ? [] : [`Operations added: ${some(operationsAdded)}`]),
    ...(operationsRenamed.length === 0
      ? []
      : [`Renamed: ${some(operationsRenamed.map(({ was, is }) => `${was} → ${is}`))}`]),
    ...others.map(({ message }) => `New: ${message}`),
    ...findingsRemoved.map(({ message }) => `Resolved: ${message}`),
  ];
  if (lines.length === 0) return null;
  return (
    <ul className="details">
      {lines.map((line) => (
        <li key={line} className={line.startsWith('Breaks ') ? 'breaks' : undefined}>
          {line}
        </li>
      ))}
    </ul>
  );
}

const MOST = 6;
const some = (names: readonly string[]): string =>
  names.slice(0, MOST).join(', ') + (names.length > MOST ? ` and ${names.length - MOST} more` : '');
