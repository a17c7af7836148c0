import {
  neverAnswers,
  noteOn,
  PROTOCOL_ANSWERS,
  responseSubject,
  type ResponseCase,
} from '@isomeros/core/contract';
import { useMemo, useState } from 'react';
import { grouped } from '../app/parts/grouped.js';
import type { AskProps } from './InOutTable.js';
import { NoteText } from './NoteText.js';

/** The answers of an operation, each with when it happens; what every operation has stands under one line. */
export function AnswerList({ contract, operation, asked, onAsk }: AskProps): React.JSX.Element {
  const { responses } = operation;
  const [isUnfolded, setUnfolded] = useState(false);
  const isNoted = (response: ResponseCase): boolean =>
    noteOn(contract, 'response', responseSubject(operation, response)) !== null;
  const isCommon = (response: ResponseCase): boolean =>
    PROTOCOL_ANSWERS.has(response.code) && !isNoted(response);
  const common = responses.filter(isCommon);
  const shown = isUnfolded ? responses : responses.filter((response) => !isCommon(response));
  const statuses = [...new Set(common.map(({ status }) => status))].join(', ');
  return (
    <>
      <header className="panel-head">
        <h3>Answers</h3>
        <span className="quiet">every one, and when</span>
      </header>
      <ul className="answers">
        {shown.map((response, index) => {
          const { status, code, when, reasons } = response;
          const title = `${status} ${code}`;
          return (
            <li
              key={code}
              className={asked.title === title ? 'chosen' : ''}
              onClick={() => onAsk({ title, reasons })}
            >
              <span className="status">{shown[index - 1]?.status === status ? '' : status}</span>
              <span>
                <button type="button" className="plain-button" aria-label={`Why ${status}: ${when}`}>
                  {when}
                </button>
                <NoteText
                  contract={contract}
                  kind="response"
                  subject={responseSubject(operation, response)}
                  on={title}
                  usual=""
                />
              </span>
            </li>
          );
        })}
        {common.length > 0 && (
          <li className="common">
            <button
              type="button"
              className="text-button"
              aria-expanded={isUnfolded}
              onClick={() => setUnfolded(!isUnfolded)}
            >
              {isUnfolded ? 'Fold what every operation may answer' : `${statuses}, as everywhere`}
            </button>
          </li>
        )}
        <NeverAnswered contract={contract} operation={operation} />
      </ul>
    </>
  );
}

/** Statuses that cannot occur, together where it is for the same reason. */
function NeverAnswered({
  contract,
  operation,
}: Pick<AskProps, 'contract' | 'operation'>): React.JSX.Element | null {
  const never = useMemo(() => neverAnswers(contract, operation), [contract, operation]);
  if (never.length === 0) return null;
  return (
    <li className="never quiet">
      <span>never</span>
      <span>
        {[...grouped(never, ({ why }) => why)]
          .map(([why, some]) => `${[...new Set(some.map(({ status }) => status))].join(', ')}: ${why}`)
          .join('; ')}
      </span>
    </li>
  );
}
