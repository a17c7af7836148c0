import { useMemo } from 'react';
import type { LeftOut } from '@isomeros/core/intake';
import { GroupedList } from './GroupedList.js';
import { groupsOf, holdsAll } from './reportGroups.js';

interface Props {
  readonly items: readonly LeftOut[];
  /** What was typed to narrow the report. */
  readonly typed: string;
  readonly onLine: (line: number) => void;
}

interface Row extends LeftOut {
  readonly key: string;
}

/** What the model does not say, by why. */
export function LeftOutList({ items, typed, onLine }: Props): React.JSX.Element {
  const groups = useMemo(
    () =>
      groupsOf(
        items
          .map((item, index): Row => ({ ...item, key: String(index) }))
          .filter(({ source, why }) => holdsAll(typed, [source, why])),
        ({ why }) => why,
      ),
    [items, typed],
  );
  return (
    <section className="panel" aria-label="Left out">
      <header className="panel-head">
        <h2>Left out</h2>
        <span className="quiet">{items.length === 0 ? 'nothing' : `${items.length}, by why`}</span>
      </header>
      <GroupedList
        label="Left out of the model"
        groups={groups}
        rowKey={({ key }) => key}
        rowHeight={19}
        selected={null}
        onSelect={({ line }) => onLine(line)}
        note={({ rows }) => rows.length}
      >
        {({ line, source }) => (
          <span className="left-out-row" title={source}>
            <span className="number">{line}</span>
            <code>{source}</code>
          </span>
        )}
      </GroupedList>
    </section>
  );
}
