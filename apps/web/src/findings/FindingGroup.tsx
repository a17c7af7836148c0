import { findingKey, type Finding } from '@isomeros/core/contract';
import { useState } from 'react';
import { amount } from '../app/parts/amount.js';
import { CauseRow } from './CauseRow.js';
import { FindingRow } from './FindingRow.js';

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
      {cause !== undefined && (
        <CauseRow cause={cause} severity={findings[0]?.severity ?? 'breaking'} what={breaksOf(findings)} />
      )}
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

/** What comes from one decision, in a few words. */
function breaksOf(findings: readonly Finding[]): string {
  const places = new Set(findings.map(({ about }) => about)).size;
  return `${amount(findings.length, 'break')} at ${amount(places, 'path')}`;
}
