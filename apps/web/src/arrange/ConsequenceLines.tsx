import type { ChangeSummary } from '@isomeros/core/comparison';
import type { Finding } from '@isomeros/core/contract';
import { amount } from '../app/parts/amount.js';
import type { Consequence } from '../design/derivation/protocol.js';

interface CountsProps {
  readonly consequence: Consequence | null;
  readonly of: 'path' | 'operation';
}

/** How much would come and go. */
export function ConsequenceCounts({ consequence, of }: CountsProps): React.JSX.Element {
  if (consequence === null) return <span className="quiet counts">working it out</span>;
  const { summary } = consequence;
  const { findingsAdded } = summary;
  const [removed, added] =
    of === 'path'
      ? [summary.pathsRemoved, summary.pathsAdded]
      : [summary.operationsRemoved, summary.operationsAdded];
  const breaks = findingsAdded.filter(isBreaking).length;
  return (
    <span className="counts">
      {breaks > 0 && <span className="breaks">breaks a release in {breaks}, </span>}
      {amount(removed.length, of)} removed, {added.length} added
    </span>
  );
}

const isBreaking = ({ severity }: Finding): boolean => severity === 'breaking';

/** Operations and findings that would come, go, or be called otherwise. */
export function ConsequenceDetails({
  summary,
}: {
  readonly summary: ChangeSummary;
}): React.JSX.Element | null {
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

/** What clients of the contract as it is could not do any more. */
export function BreakingLines({
  consequence,
}: {
  readonly consequence: Consequence;
}): React.JSX.Element | null {
  const { count, first } = consequence.breaking;
  // What breaks a release is told already, and mostly the same.
  if (consequence.summary.findingsAdded.some(isBreaking)) return null;
  if (count === 0) return <p className="details">Clients of today go on as they are.</p>;
  return (
    <ul className="details" aria-label="Clients of today">
      <li className="breaks">Clients of today break in {count}:</li>
      {first.map((message) => (
        <li key={message}>{message}</li>
      ))}
      {count > first.length && <li>and {count - first.length} more</li>}
    </ul>
  );
}

const MOST = 6;
const some = (names: readonly string[]): string =>
  names.slice(0, MOST).join(', ') + (names.length > MOST ? ` and ${names.length - MOST} more` : '');
