import type { LeftOut } from '@isomeros/core/intake';
import { RowList } from '../app/parts/RowList.js';

interface Props {
  readonly items: readonly LeftOut[];
  readonly onLine: (line: number) => void;
}

/** What the model does not say, and why. */
export function LeftOutList({ items, onLine }: Props): React.JSX.Element {
  const rows = items.map((item, index) => ({ ...item, key: String(index) }));
  return (
    <section className="panel" aria-label="Left out">
      <header className="panel-head">
        <h2>Left out</h2>
        <span className="quiet">{rows.length === 0 ? 'nothing' : `${rows.length}, each with why`}</span>
      </header>
      <RowList
        label="Left out of the model"
        rows={rows}
        rowKey={({ key }) => key}
        rowHeight={38}
        selected={null}
        onSelect={({ line }) => onLine(line)}
      >
        {({ line, source, why }) => (
          <span className="left-out-row">
            <span className="number">{line}</span>
            <code>{source}</code>
            <span className="quiet">{why}</span>
          </span>
        )}
      </RowList>
    </section>
  );
}
