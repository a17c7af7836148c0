import {
  decisionText,
  findingKey,
  withoutDecision,
  type CitedDecision,
  type Finding,
} from '@isomeros/core/contract';
import { Button } from 'antd';
import { useState } from 'react';
import { amount } from '../app/parts/amount.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { choicesMade } from '../design/documentSlice.js';
import { FindingRow } from './FindingRow.js';
import { arrangementName } from '../design/viewSlice.js';

interface Props {
  /** Findings of one kind, and where they have a cause, of one cause. */
  readonly findings: readonly Finding[];
  readonly onStatement: (line: number) => void;
}

/** So many of a kind are shown at first, and more at each request. */
const FIRST = 2;
const STEP = 20;

/** Findings of one kind, so that a hundred of them do not hide everything else. */
export function FindingGroup({ findings, onStatement }: Props): React.JSX.Element {
  const cause = findings.length > 1 ? findings[0]?.cause : undefined;
  // What comes from one decision is one thing, until somebody looks closer.
  const [shown, setShown] = useState(cause === undefined ? FIRST : 0);
  const hidden = findings.length - shown;
  return (
    <>
      {cause !== undefined && <CauseRow cause={cause} findings={findings} />}
      {findings.slice(0, shown).map((finding) => (
        <FindingRow key={findingKey(finding)} finding={finding} onStatement={onStatement} />
      ))}
      {hidden > 0 && (
        <li>
          <button type="button" className="text-button" onClick={() => setShown(shown + STEP)}>
            {shown === 0 ? `Show all ${hidden}` : `${hidden} more of this kind`}
          </button>
        </li>
      )}
    </>
  );
}

interface CauseProps {
  readonly cause: CitedDecision;
  readonly findings: readonly Finding[];
}

/** The decision that all of them come from, with the way back beside it. */
function CauseRow({ cause, findings }: CauseProps): React.JSX.Element {
  const dispatch = useAppDispatch();
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const without = withoutDecision(choices, arrangement, cause);
  const [about, how] = decisionText(cause);
  const places = new Set(findings.map((finding) => finding.about)).size;
  return (
    <li className="question">
      <div className="asked">
        <span className={`severity ${findings[0]?.severity ?? ''}`}>{findings[0]?.severity}</span>
        <span className="strong">
          {about} <code>{how}</code>
        </span>
        : {amount(findings.length, 'break')} at {amount(places, 'path')}
      </div>
      {without !== null && <Button onClick={() => dispatch(choicesMade(without))}>Take it back</Button>}
    </li>
  );
}
