import { useMemo } from 'react';
import { amount } from '../app/parts/amount.js';
import { GroupedList } from './GroupedList.js';
import { groupsOf, holdsAll, type RowGroup } from './reportGroups.js';
import type { UnderstoodRow } from './reportRows.js';

interface Props {
  readonly rows: readonly UnderstoodRow[];
  /** What was typed to narrow the report. */
  readonly typed: string;
  readonly selected: string | null;
  readonly onSelect: (row: UnderstoodRow) => void;
}

/** The model as it was read, block by block, each statement with the words of the source that made it. */
export function UnderstoodPane({ rows, typed, selected, onSelect }: Props): React.JSX.Element {
  const groups = useMemo(
    () =>
      groupsOf(
        rows.filter(({ text, because, block }) => holdsAll(typed, [text, because, block])),
        ({ block }) => block,
      ),
    [rows, typed],
  );
  return (
    <section className="panel" aria-label="Understood">
      <header className="panel-head understood-head">
        <h2>
          Understood <span className="quiet">{amount(rows.length, 'line')} of notation</span>
        </h2>
        <span className="quiet">because</span>
        <span className="quiet">lines</span>
      </header>
      <GroupedList
        label="Lines of notation"
        groups={groups}
        rowKey={({ key }) => key}
        rowHeight={18}
        selected={selected}
        onSelect={onSelect}
        note={inWords}
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
      </GroupedList>
    </section>
  );
}

/** What made the block, and of how many lines it is. */
function inWords({ rows }: RowGroup<UnderstoodRow>): string {
  const [first] = rows;
  const isBlock = first !== undefined && /^(entity|value) /.test(first.text);
  if (!isBlock) return amount(rows.length, 'line');
  return rows.length === 1 ? first.because : `${first.because}, ${amount(rows.length - 1, 'line')}`;
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
