import type { Finding } from '@isomeros/core/contract';
import { Button } from 'antd';
import { Explained } from '../app/help/Explained.js';
import { useAppSelector } from '../app/store.js';
import { useQuickFix } from '../design/useQuickFix.js';
import './questions.css';

interface Props {
  readonly finding: Finding;
  readonly onStatement: (line: number) => void;
}

/** Something wrong or doubtful, with its mends where there are any. */
export function FindingRow({ finding, onStatement }: Props): React.JSX.Element {
  const places = useAppSelector((state) => state.derived.reading?.places);
  const carryOut = useQuickFix();
  const cited = finding.reasons.flatMap(({ because }) => because).find(({ kind }) => kind === 'statement');
  const id = places?.[finding.about] === undefined && cited?.kind === 'statement' ? cited.id : finding.about;
  const place = places?.[id];
  return (
    <li className="question">
      <div className="asked">
        <Explained by="model.severity">
          <span className={`severity ${finding.severity}`}>{finding.severity}</span>
        </Explained>
        {place === undefined ? (
          finding.message
        ) : (
          <button type="button" className="plain-button" onClick={() => onStatement(place.line)}>
            {finding.message}
          </button>
        )}
      </div>
      {(finding.quickFixes ?? []).map((mend) => (
        <Button key={mend.title} onClick={() => carryOut(mend)}>
          {mend.title}
        </Button>
      ))}
    </li>
  );
}
