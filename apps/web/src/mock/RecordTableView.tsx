import type { RecordTable } from '@isomeros/api';
import { completeFind, type RecordColumn, type RecordLink } from '@isomeros/core/records';
import { recordTypesOf } from '@isomeros/core/transfer';
import { Button } from 'antd';
import { useState } from 'react';
import { problemOf } from '../app/api/client.js';
import { LineField } from '../app/parts/LineField.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { RecordGrid } from './RecordGrid.js';
import { NO_EDITS, rowAdded } from './recordEditsSlice.js';
import { useRecordPages } from './useRecordPages.js';

const NO_COLUMNS: readonly RecordColumn[] = [];

interface Props {
  /** The id of the mock. */
  readonly mock: string;
  readonly type: string;
  /** The number of the record that is looked at. */
  readonly selected: number | null;
  readonly onSelect: (number: number) => void;
  readonly onFollow: (to: RecordLink) => void;
}

/** The records of one type: looked for, sorted, edited, and drawn as far as they are in view. */
export function RecordTableView({ mock, type, selected, onSelect, onFollow }: Props): React.JSX.Element {
  const [find, setFind] = useState('');
  const [sort, setSort] = useState('');
  const [first, setFirst] = useState(0);
  const dispatch = useAppDispatch();
  const all = useAppSelector(({ recordEdits }) => recordEdits.byMock[mock] ?? NO_EDITS);
  const next = useAppSelector(({ recordEdits }) => recordEdits.added + 1);
  const [begun, setBegun] = useState<number | null>(null);
  const { known, found, error, rowAt, loaded } = useRecordPages({ mock, type, find, sort }, first);
  const pending = { ...all, edits: all.edits.filter((edit) => edit.type === type) };
  const isEmpty = known !== undefined && found === 0 && pending.edits.length === 0;
  return (
    <section className="panel record-table" aria-label={type}>
      <header className="panel-head">
        <h2>{type}</h2>
        <span className="quiet">{countText(known, found)}</span>
        <FindField type={type} find={find} onFind={setFind} />
        <Button
          size="small"
          onClick={() => {
            dispatch(rowAdded({ mock, type }));
            setBegun(next);
          }}
        >
          Add
        </Button>
      </header>
      {error !== undefined && (
        <p className="wrong" role="alert">
          {problemOf(error)?.detail}
        </p>
      )}
      <RecordGrid
        mock={mock}
        type={type}
        columns={known?.columns ?? NO_COLUMNS}
        found={found}
        rowAt={rowAt}
        loaded={loaded}
        pending={pending}
        sort={sort}
        onSort={setSort}
        selected={selected}
        onSelect={onSelect}
        onFollow={onFollow}
        onScroll={setFirst}
        begun={begun}
      />
      {isEmpty && error === undefined && (
        <p className="empty-note">
          {known.total === 0 ? `There is no ${type} yet.` : 'None of them is what is looked for.'}
        </p>
      )}
    </section>
  );
}

const countText = (known: RecordTable | undefined, found: number): string =>
  known === undefined ? '' : found === known.total ? String(found) : `${found} of ${known.total}`;

interface FindFieldProps {
  readonly type: string;
  readonly find: string;
  readonly onFind: (find: string) => void;
}

function FindField({ type, find, onFind }: FindFieldProps): React.JSX.Element {
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const storage = model === null ? undefined : recordTypesOf(model).get(type);
  return (
    <span className="end record-find">
      <LineField
        label={`Find ${type}`}
        value={find}
        placeholder="a text, or where … by …"
        complete={(text) =>
          model === null || storage === undefined ? [] : completeFind(model, storage, text)
        }
        onCommit={onFind}
      />
    </span>
  );
}
