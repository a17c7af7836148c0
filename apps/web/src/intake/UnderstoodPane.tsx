import { RowList } from '../app/parts/RowList.js';
import type { UnderstoodRow } from './reportRows.js';
import { amount } from '../app/parts/amount.js';

interface Props {
  readonly rows: readonly UnderstoodRow[];
  readonly selected: string | null;
  readonly onSelect: (row: UnderstoodRow) => void;
}

/** The model as it was read, each statement with the words of the source that made it. */
export function UnderstoodPane({ rows, selected, onSelect }: Props): React.JSX.Element {
  return (
    <section className="panel" aria-label="Understood">
      <header className="panel-head understood-head">
        <h2>
          Understood <span className="quiet">{amount(rows.length, 'line')} of notation</span>
        </h2>
        <span className="quiet">because</span>
        <span className="quiet">lines</span>
      </header>
      <RowList
        label="Lines of notation"
        rows={rows}
        rowKey={({ key }) => key}
        rowHeight={17}
        selected={selected}
        onSelect={onSelect}
      >
        {(row) => (
          <span className="understood-row">
            <span className="number">{row.line}</span>
            <code title={row.text}>{statement(row.text)}</code>
            <span className="quiet" title={row.because}>
              {row.because}
            </span>
            <span className="quiet lines">{row.from === null ? '' : linesInWords(row.from)}</span>
          </span>
        )}
      </RowList>
    </section>
  );
}

const linesInWords = ({ line, endLine }: { readonly line: number; readonly endLine: number }): string =>
  line === endLine ? String(line) : `${line}–${endLine}`;

/** The names of blocks stand out, as in the editor. */
function statement(text: string): React.ReactNode {
  const block = /^(entity|value) (\S+)(.*)$/.exec(text);
  if (block === null) return text;
  return (
    <>
      {block[1]} <b>{block[2]}</b>
      {block[3]}
    </>
  );
}
