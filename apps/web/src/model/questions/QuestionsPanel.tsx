import { openAssumptions, type Assumption } from '@isomeros/core/contract';
import type { PossibleRename } from '@isomeros/core/model';
import { memo, useDeferredValue, useState } from 'react';
import { useAppSelector } from '../../app/store.js';
import type { Step } from '../../design/derivation/protocol.js';
import { useConsequences } from '../../design/useConsequences.js';
import { AnsweredRow } from './AnsweredRow.js';
import { AssumptionRow, otherAnswer } from './AssumptionRow.js';
import { FindingGroups } from '../../findings/FindingGroups.js';
import { RenameRow } from './RenameRow.js';
import '../../findings/questions.css';
import { amount } from '../../app/parts/amount.js';

interface Props {
  readonly onStatement: (line: number) => void;
}

/** So many assumptions are asked with what another answer would change; those below are asked without. */
const MOST_WITH_CONSEQUENCE = 5;
/** Each of them is a derivation of its own: together they may take so long. */
const PATIENCE_MS = 250;

/** The step that the one other answer is. */
function otherStep(assumption: Assumption): Step | null {
  const other = otherAnswer(assumption);
  return other === null ? null : { kind: 'edit', edit: other.edit };
}

/** So many rows of a kind are drawn at first: a large model may leave hundreds open. */
const STEP = 12;

const NONE: readonly Assumption[] = [];
const NO_RENAMES: readonly PossibleRename[] = [];

/** What is wrong or doubtful, and what nobody has said: each with its answers beside it. */
export const QuestionsPanel = memo(function QuestionsPanel({ onStatement }: Props): React.JSX.Element {
  // The paths are drawn first; what is asked about them may follow a moment later.
  const reviewed = useDeferredValue(useAppSelector((state) => state.derived.review));
  const choices = useAppSelector((state) => state.document.choices);
  const renames = useAppSelector((state) => state.document.design?.possibleRenames ?? NO_RENAMES);
  const milliseconds = useAppSelector((state) => state.derived.review?.milliseconds ?? PATIENCE_MS);
  const [showsAnswered, setShowsAnswered] = useState(false);
  const all = reviewed?.assumptions ?? NONE;
  const open = reviewed === null ? NONE : openAssumptions(reviewed, choices.answered);
  const isOpen = new Set(open);
  const answered = all.filter((assumption) => !isOpen.has(assumption));
  const most = Math.min(MOST_WITH_CONSEQUENCE, Math.floor(PATIENCE_MS / milliseconds));
  const consequences = useConsequences(
    open.slice(0, most).flatMap((assumption) => otherStep(assumption) ?? []),
  );
  const findings = reviewed?.findings ?? [];
  const [shown, setShown] = useState(STEP);
  const hidden = Math.max(0, open.length - shown);
  return (
    <section className="panel" aria-label="Findings and assumptions">
      <header className="panel-head">
        <h2>
          {amount(open.length, 'open assumption')}
          {findings.length > 0 && `, ${amount(findings.length, 'finding')}`}
        </h2>
        <span className="quiet">nobody said, so derivation decided</span>
        {answered.length > 0 && (
          <span className="end">
            <button
              type="button"
              className="text-button"
              aria-expanded={showsAnswered}
              onClick={() => setShowsAnswered(!showsAnswered)}
            >
              {showsAnswered ? 'Hide the answered' : `${answered.length} answered`}
            </button>
          </span>
        )}
      </header>
      <ul className="panel-body questions">
        {renames.map((rename) => (
          <RenameRow key={`${rename.from} ${rename.to}`} rename={rename} />
        ))}
        <FindingGroups findings={findings} onStatement={onStatement} />
        {open.slice(0, shown).map((assumption) => (
          <AssumptionRow
            key={assumption.id}
            assumption={assumption}
            summary={consequences.get(JSON.stringify(otherStep(assumption)))?.summary ?? null}
            onStatement={onStatement}
          />
        ))}
        {hidden > 0 && (
          <li>
            <button type="button" className="text-button" onClick={() => setShown(shown + STEP)}>
              Show more; {hidden} are not shown
            </button>
          </li>
        )}
        {showsAnswered &&
          answered.map((assumption) => <AnsweredRow key={assumption.id} assumption={assumption} />)}
        {open.length + findings.length + renames.length === 0 && !showsAnswered && reviewed !== null && (
          <li className="quiet">Nothing is left open.</li>
        )}
      </ul>
    </section>
  );
});
