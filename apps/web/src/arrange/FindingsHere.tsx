import { findingKey } from '@isomeros/core/contract';
import { useAppSelector } from '../app/store.js';
import type { OutlineRow } from '../app/parts/outlineRows.js';
import { FindingRow } from '../findings/FindingRow.js';
import { findingsAt } from '../findings/findingsAt.js';

interface Props {
  readonly row: OutlineRow;
  readonly onStatement: (line: number) => void;
}

/** What is wrong or doubtful about a path, with its mends. */
export function FindingsHere({ row, onStatement }: Props): React.JSX.Element | null {
  const findings = useAppSelector((state) => state.derived.review?.findings ?? null);
  const here = findings === null ? [] : findingsAt(findings, row.resource);
  if (here.length === 0) return null;
  return (
    <ul className="questions" aria-label="Findings about this path">
      {here.map((finding) => (
        <FindingRow key={findingKey(finding)} finding={finding} onStatement={onStatement} />
      ))}
    </ul>
  );
}
