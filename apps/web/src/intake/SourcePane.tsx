import { RowList } from '../app/parts/RowList.js';
import type { SourceRow } from './reportRows.js';

interface Props {
  readonly rows: readonly SourceRow[];
  readonly line: number | null;
  readonly onLine: (line: number) => void;
}

/** The source as it was given: what was understood, what is asked, what was left out. */
export function SourcePane({ rows, line, onLine }: Props): React.JSX.Element {
  return (
    <section className="panel" aria-label="Source">
      <header className="panel-head">
        <h2>Source</h2>
        <span className="quiet">as given</span>
        <span className="end quiet">
          <span className="gutter-bar" /> understood <span className="asked-mark">1</span> asked <s>struck</s>{' '}
          left out
        </span>
      </header>
      <RowList
        label="Source lines"
        rows={rows}
        rowKey={({ key }) => key}
        rowHeight={17}
        selected={line === null ? null : String(line)}
        onSelect={(row) => onLine(row.line)}
      >
        {(row) => (
          <span className="source-row">
            <span className="number">{row.line}</span>
            <code className={row.leftOut ? 'struck' : ''}>{row.text}</code>
            {row.asked.map((number) => (
              <span key={number} className="asked-mark">
                {number}
              </span>
            ))}
            <span className={row.understood ? 'gutter-bar' : 'gutter-none'} />
          </span>
        )}
      </RowList>
    </section>
  );
}
