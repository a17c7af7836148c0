import { findingKey, type Finding } from '@isomeros/core/contract';
import { useState } from 'react';
import { FindingRow } from './FindingRow.js';

interface Props {
  /** Findings of one kind. */
  readonly findings: readonly Finding[];
  readonly onStatement: (line: number) => void;
}

/** So many of a kind are shown at first, and more at each request. */
const FIRST = 2;
const STEP = 20;

/** Findings of one kind, so that a hundred of them do not hide everything else. */
export function FindingGroup({ findings, onStatement }: Props): React.JSX.Element {
  const [shown, setShown] = useState(FIRST);
  const hidden = findings.length - shown;
  return (
    <>
      {findings.slice(0, shown).map((finding) => (
        <FindingRow key={findingKey(finding)} finding={finding} onStatement={onStatement} />
      ))}
      {hidden > 0 && (
        <li>
          <button type="button" className="text-button" onClick={() => setShown(shown + STEP)}>
            {hidden} more of this kind
          </button>
        </li>
      )}
    </>
  );
}
