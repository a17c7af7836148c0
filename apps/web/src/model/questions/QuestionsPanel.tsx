import { openAssumptions, type Assumption } from '@isomeros/core/contract';
import { useState } from 'react';
import { useAppSelector } from '../../app/store.js';
import { AnsweredRow } from './AnsweredRow.js';
import { AssumptionRow } from './AssumptionRow.js';
import { FindingRow } from './FindingRow.js';
import { RenameRow } from './RenameRow.js';
import './questions.css';

interface Props {
  readonly onStatement: (line: number) => void;
}

/** So many assumptions are answered with what would follow; those below are asked without. */
const MOST_WITH_CONSEQUENCE = 5;

const NONE: readonly Assumption[] = [];

/** What is wrong or doubtful, and what nobody has said: each with its answers beside it. */
export function QuestionsPanel({ onStatement }: Props): React.JSX.Element {
  const { contract, choices, design } = useAppSelector((state) => state.design);
  const [showsAnswered, setShowsAnswered] = useState(false);
  const all = contract?.assumptions ?? NONE;
  const open = contract === null ? NONE : openAssumptions(contract, choices.answered);
  const answered = all.filter((assumption) => !open.includes(assumption));
  const findings = contract?.findings ?? [];
  const renames = design?.possibleRenames ?? [];
  return (
    <section className="panel" aria-label="Findings and assumptions">
      <header className="panel-head">
        <h2>
          {open.length} open {open.length === 1 ? 'assumption' : 'assumptions'}
          {findings.length > 0 && `, ${findings.length} ${findings.length === 1 ? 'finding' : 'findings'}`}
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
        {findings.map((finding) => (
          <FindingRow key={`${finding.id} ${finding.about}`} finding={finding} onStatement={onStatement} />
        ))}
        {open.map((assumption, index) => (
          <AssumptionRow
            key={assumption.id}
            assumption={assumption}
            withConsequence={index < MOST_WITH_CONSEQUENCE}
            onStatement={onStatement}
          />
        ))}
        {showsAnswered &&
          answered.map((assumption) => <AnsweredRow key={assumption.id} assumption={assumption} />)}
        {open.length + findings.length + renames.length === 0 && !showsAnswered && contract !== null && (
          <li className="quiet">Nothing is left open.</li>
        )}
      </ul>
    </section>
  );
}
