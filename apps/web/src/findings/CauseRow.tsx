import { decisionText, withoutDecision, type CitedDecision } from '@isomeros/core/contract';
import { Button } from 'antd';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { choicesMade } from '../design/documentSlice.js';
import { arrangementName } from '../design/viewSlice.js';
import './questions.css';

interface Props {
  readonly cause: CitedDecision;
  /** What it is to what comes from it. */
  readonly severity: string;
  /** What comes from it, in a few words. */
  readonly what: string;
}

/** A decision that much comes from, with the way back beside it. */
export function CauseRow({ cause, severity, what }: Props): React.JSX.Element {
  const dispatch = useAppDispatch();
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const without = withoutDecision(choices, arrangement, cause);
  const [about, how] = decisionText(cause);
  return (
    <li className="question cause">
      <div className="asked">
        <span className={`severity ${severity}`}>{severity}</span>
        <span className="strong">
          {about} <code>{how}</code>
        </span>
        : {what}
      </div>
      {without !== null && <Button onClick={() => dispatch(choicesMade(without))}>Take it back</Button>}
    </li>
  );
}
