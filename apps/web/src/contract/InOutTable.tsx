import {
  answerTypes,
  envelopeText,
  inOutRows,
  type Contract,
  type InOutRow,
  type Operation,
  type Reasons,
} from '@isomeros/core/contract';
import { ExplainedWords } from '../app/help/Explained.js';
import { NoteText } from './NoteText.js';

/** What is asked why at the moment. */
export interface SelectedReasons {
  readonly title: string;
  readonly reasons: Reasons;
}

export interface AskProps {
  readonly contract: Contract;
  readonly operation: Operation;
  readonly asked: SelectedReasons;
  readonly onAsk: (asked: SelectedReasons) => void;
}

const IN_OUT_COLUMNS = ['name', 'type', 'in', 'out'] as const;

const shownName = ({ place, name }: InOutRow): string => (place === 'query' ? `?${name}=` : name);

/** Everything that goes into an operation and comes out of it, with what is to be known of each. */
export function InOutTable({ contract, operation, asked, onAsk }: AskProps): React.JSX.Element {
  const around = envelopeText(contract, operation);
  return (
    <>
      <header className="panel-head">
        <h3>What goes in, what comes out</h3>
        {around !== null && <span className="quiet">{around}</span>}
      </header>
      <MediaTypes contract={contract} operation={operation} />
      <table className="in-out">
        <thead>
          <tr>
            {IN_OUT_COLUMNS.map((column) => (
              <th key={column}>
                <ExplainedWords by={`contract.${column}`}>{column}</ExplainedWords>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {inOutRows(contract, operation).map((row) => (
            <tr
              key={`${row.place} ${row.name}`}
              className={asked.title === row.name ? 'chosen' : ''}
              onClick={() => onAsk({ title: row.name, reasons: row.reasons })}
            >
              <td className="name">
                <button type="button" className="plain-button" aria-label={`Why ${shownName(row)}`}>
                  {shownName(row)}
                </button>
              </td>
              <td>
                {row.type}
                {row.noted !== null && (
                  <NoteText contract={contract} {...row.noted} on={shownName(row)} usual={row.usual} />
                )}
              </td>
              <td className={row.in}>{row.in}</td>
              <td className={row.out ? '' : 'no'}>{row.out ? 'yes' : 'no'}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** Which shape is taken and answered in which media types. */
function MediaTypes({
  contract,
  operation,
}: Pick<AskProps, 'contract' | 'operation'>): React.JSX.Element | null {
  const { accepts, acceptedTypes, returns } = operation;
  const answered = answerTypes(contract, operation);
  const lines = [
    ...(accepts === null ? [] : [['takes', accepts, acceptedTypes] as const]),
    ...(returns === null ? [] : [['answers', returns, answered] as const]),
  ];
  if (lines.length === 0) return null;
  return (
    <dl className="media-types">
      {lines.map(([how, shape, types]) => (
        <div key={how}>
          <dt>
            {how} <code className="strong">{shape}</code>
          </dt>
          <dd className="quiet">{types.join(', ')}</dd>
        </div>
      ))}
    </dl>
  );
}
