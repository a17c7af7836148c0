import { useState } from 'react';
import type { RecordType } from '@isomeros/api';
import type { RecordLink } from '@isomeros/core/records';
import type { Shortfall } from '@isomeros/core/seeding';
import { problemOf } from '../app/api/client.js';
import { RowList } from '../app/parts/RowList.js';
import { SplitPanels } from '../app/parts/SplitPanels.js';
import type { JournalPlace } from './Exchanges.js';
import { EditsFooter } from './EditsFooter.js';
import type { MockEndpoint } from './endpoints.js';
import { useFollowMockQuery } from './followMock.js';
import type { PendingEdit } from './recordEditsSlice.js';
import { shortfallText } from './SeedPreview.js';
import { RecordPanel } from './RecordPanel.js';
import { RecordTableView } from './RecordTableView.js';
import { RecordTransfer } from './RecordTransfer.js';
import { useListRecordTypesQuery } from './recordsApi.js';

const NONE: readonly RecordType[] = [];

interface Props {
  /** Whose contract edits are written through. */
  readonly endpoint: MockEndpoint;
  /** Goes to a place in the journal. */
  readonly onJournal: (place: JournalPlace) => void;
  /** Puts fresh seed records in place of all. */
  readonly onReset: () => Promise<void>;
}

/** The records of a mock: their types, a table of one of them, and one record. */
export function RecordsPage({ endpoint, onJournal, onReset }: Props): React.JSX.Element {
  const { mock } = endpoint;
  useFollowMockQuery(mock.id);
  const { data: types = NONE, error } = useListRecordTypesQuery(mock.id, { refetchOnMountOrArgChange: true });
  const [chosen, setChosen] = useState<string | null>(null);
  const [record, setRecord] = useState<{ readonly type: string; readonly number: number } | null>(null);
  const [isTransferring, setTransferring] = useState(false);
  const type = types.find(({ name }) => name === chosen)?.name ?? types[0]?.name ?? null;
  if (isTransferring)
    return <RecordTransfer mock={mock} onReset={onReset} onClose={() => setTransferring(false)} />;
  const follow = (to: RecordLink): void => {
    setChosen(to.type);
    setRecord(to);
  };
  const show = ({ type: edited, row }: PendingEdit): void => {
    setChosen(edited);
    if (row.kind === 'there') setRecord({ type: edited, number: row.number });
  };
  return (
    <div className="records-page">
      <SplitPanels name="record-types" first={208}>
        <RecordTypes
          types={types}
          shortfalls={mock.shortfalls}
          problem={problemOf(error)?.detail ?? null}
          selected={type}
          onSelect={setChosen}
          onTransfer={() => setTransferring(true)}
        />
        {type === null ? (
          <section className="panel" />
        ) : (
          <SplitPanels name="record-table" first={744}>
            <RecordTableView
              key={type}
              mock={mock.id}
              type={type}
              selected={record?.type === type ? record.number : null}
              onSelect={(number) => setRecord({ type, number })}
              onFollow={follow}
            />
            <RecordPanel endpoint={endpoint} record={record} onFollow={follow} onJournal={onJournal} />
          </SplitPanels>
        )}
      </SplitPanels>
      <EditsFooter endpoint={endpoint} onShow={show} />
    </div>
  );
}

interface RecordTypesProps {
  readonly types: readonly RecordType[];
  readonly shortfalls: readonly Shortfall[];
  readonly problem: string | null;
  readonly selected: string | null;
  readonly onSelect: (type: string) => void;
  readonly onTransfer: () => void;
}

/** Every type of record with how many there are, entities and pairings. */
function RecordTypes({
  types,
  shortfalls,
  problem,
  selected,
  onSelect,
  onTransfer,
}: RecordTypesProps): React.JSX.Element {
  const all = types.reduce((sum, { records }) => sum + records, 0);
  return (
    <section className="panel record-type-list" aria-label="Records">
      <header className="panel-head">
        <h2>Records</h2>
        <span className="end quiet">{all} in all</span>
      </header>
      {problem === null ? (
        <RowList
          label="Record types"
          rows={types}
          rowKey={({ name }) => name}
          rowHeight={26}
          selected={selected}
          onSelect={({ name }) => onSelect(name)}
        >
          {({ name, records }) => (
            <span className="record-type">
              <span>{name}</span>
              <span>
                <span className={records === 0 ? 'quiet' : 'strong'}>{records}</span>
                {shortfalls.some(({ entity }) => entity === name) && (
                  <span className="shortfall"> short</span>
                )}
              </span>
            </span>
          )}
        </RowList>
      ) : (
        <p className="wrong" role="alert">
          {problem}
        </p>
      )}
      <footer>
        {shortfalls.map((shortfall) => (
          <p key={shortfall.entity} className="shortfall">
            {shortfallText(shortfall)}
          </p>
        ))}
        <button type="button" className="text-button" onClick={onTransfer}>
          Import, export, seed
        </button>
      </footer>
    </section>
  );
}
