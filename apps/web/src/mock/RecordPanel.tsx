import { skipToken } from '@reduxjs/toolkit/query';
import type { InspectedRecord } from '@isomeros/api';
import type { RecordLink } from '@isomeros/core/records';
import { Button } from 'antd';
import { useState } from 'react';
import { problemOf, refusalText } from '../app/api/client.js';
import { ExplainedAction } from '../app/help/Explained.js';
import { amount } from '../app/parts/amount.js';
import { keyText, RecordCellView, RecordLinkView } from './RecordCellView.js';
import type { PendingEdit } from './recordEditsSlice.js';
import { RowProblems } from './RowProblems.js';
import { RemovalTree, treeSize } from './RemovalTree.js';
import { contractOf, type MockEndpoint } from './endpoints.js';
import type { JournalPlace } from './Exchanges.js';
import { useExamples, type ExampleUse } from './useExamples.js';
import { useReadRecordQuery, useWriteEditsMutation } from './recordsApi.js';

interface Props {
  /** Whose contract it is removed through. */
  readonly endpoint: MockEndpoint;
  readonly record: { readonly type: string; readonly number: number } | null;
  readonly onFollow: (to: RecordLink) => void;
  /** Goes to a place in the journal. */
  readonly onJournal: (place: JournalPlace) => void;
}

/** One record: its values, the exchanges that made it, what refers to it, and what would go with it. */
export function RecordPanel({ endpoint, record, onFollow, onJournal }: Props): React.JSX.Element {
  const asked =
    record === null ? skipToken : { mock: endpoint.mock.id, type: record.type, number: record.number };
  const { currentData, data, error } = useReadRecordQuery(asked);
  // The one before stays while the next is read.
  const shown = currentData ?? data;
  if (record === null || error !== undefined || shown === undefined)
    return (
      <section className="panel" aria-label="Record">
        <header className="panel-head">
          <h2>Record</h2>
        </header>
        <p className="empty-note">
          {record === null
            ? 'Choose a record to see its values, its versions, what refers to it, and what would go with it.'
            : (problemOf(error)?.detail ?? '')}
        </p>
      </section>
    );
  const { link, version } = shown;
  return (
    <section className="panel" aria-label="Record">
      <header className="panel-head">
        <h2>
          {link.type} {keyText(link.key)}
        </h2>
        <span className="quiet">version {version}</span>
        <span className="end quiet">{link.hint}</span>
      </header>
      <div className="panel-body">
        <Values record={shown} onFollow={onFollow} />
        <Versions record={shown} onJournal={onJournal} />
        <ReferringRecords record={shown} onFollow={onFollow} />
        <Removal key={shown.number} endpoint={endpoint} record={shown} onFollow={onFollow} />
      </div>
    </section>
  );
}

interface PartProps {
  readonly record: InspectedRecord;
  readonly onFollow: (to: RecordLink) => void;
}

function Values({ record, onFollow }: PartProps): React.JSX.Element {
  const { columns, cells, transitions, link } = record;
  const exampleOf = useExamples(link.type);
  return (
    <table className="record-values">
      <tbody>
        {columns.map(({ name, type, kind }, at) => (
          <tr key={name}>
            <th scope="row" title={type}>
              {name}
            </th>
            <td>
              {cells[at] !== undefined && <RecordCellView cell={cells[at]} onFollow={onFollow} />}
              {kind === 'computed' && <span className="quiet"> computed</span>}
              {cells[at]?.kind === 'value' && kind !== 'computed' && (
                <ExampleMark use={exampleOf(name, cells[at].value)} />
              )}
            </td>
          </tr>
        ))}
        {transitions.length > 0 && (
          <tr>
            <th scope="row">allows now</th>
            <td>{transitions.join(', ')}</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

/** Whether a value is the example of its attribute, or what makes it so. */
function ExampleMark({ use }: { readonly use: ExampleUse | null }): React.JSX.Element | null {
  if (use === null) return null;
  if (use.kind === 'is') return <span className="quiet example-mark">the example</span>;
  return (
    <span className="example-mark may">
      <ExplainedAction by="mock.example" onPress={use.make}>
        Use as example
      </ExplainedAction>
    </span>
  );
}

const clock = (at: string): string =>
  new Date(at).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  });

function Versions({
  record,
  onJournal,
}: Pick<PartProps, 'record'> & Pick<Props, 'onJournal'>): React.JSX.Element {
  const name = `${record.link.type} ${keyText(record.link.key)}`;
  const { versions, version } = record;
  return (
    <>
      <header className="panel-head">
        <h3>Versions</h3>
        <span className="quiet">
          {versions.length === 0 ? 'by no exchange that is kept' : 'by exchange'}
          {(versions[0]?.version ?? version) < version && ', the latest by none'}
        </span>
        {versions.length > 0 && (
          <span className="end">
            <button
              type="button"
              className="text-button"
              onClick={() =>
                onJournal({ exchange: null, looked: { query: { record: record.number }, record: name } })
              }
            >
              Its exchanges
            </button>
          </span>
        )}
      </header>
      <table className="record-versions">
        <tbody>
          {versions.map(({ version, exchange, operation, changed, at }) => (
            <tr key={exchange}>
              <th scope="row">{version}</th>
              <td>
                <button
                  type="button"
                  className="text-button"
                  title="What happened in it"
                  onClick={() => onJournal({ exchange, looked: null })}
                >
                  {exchange}
                </button>{' '}
                {operation}
              </td>
              <td>{version === 1 ? 'all' : changed.join(', ')}</td>
              <td className="quiet">{clock(at)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function ReferringRecords({ record, onFollow }: PartProps): React.JSX.Element {
  const { referring } = record;
  const all = referring.reduce((sum, { records }) => sum + records, 0);
  return (
    <>
      <header className="panel-head">
        <h3>Referred to by</h3>
        <span className="quiet">{all === 0 ? 'nothing' : amount(all, 'record')}</span>
      </header>
      {referring.map(({ type, by, records, first }) => (
        <div key={`${type} ${by.role}`} className="referring">
          <p>
            <span className="strong">{by.kind === 'owns' ? by.role : type}</span>{' '}
            <span className="quiet">{by.kind === 'owns' ? 'owned' : `by ${by.role}`}</span> {records}
          </p>
          <ul>
            {first.map((to) => (
              <li key={to.number}>
                <RecordLinkView to={to} onFollow={onFollow} />
              </li>
            ))}
            {records > first.length && <li className="quiet">and {records - first.length} more</li>}
          </ul>
        </div>
      ))}
    </>
  );
}

function Removal({ endpoint, record, onFollow }: PartProps & Pick<Props, 'endpoint'>): React.JSX.Element {
  const { removal, link, number, version } = record;
  const { mock, ...served } = endpoint;
  const [writeEdits, { isLoading }] = useWriteEditsMutation();
  const [refused, setRefused] = useState<PendingEdit['problems']>([]);
  const remove = async (): Promise<void> => {
    const edit = { kind: 'remove', type: link.type, number, version } as const;
    const body = { edits: [edit], ...contractOf(served) };
    try {
      const { problems } = await writeEdits({ mock: mock.id, body }).unwrap();
      setRefused(problems);
    } catch (error) {
      setRefused([{ column: null, status: null, message: refusalText(error) }]);
    }
  };
  const others = removal.allowed ? treeSize(removal.tree) - 1 : 0;
  return (
    <>
      <header className="panel-head">
        <h3>Removed with it</h3>
        <span className="quiet">
          {removal.allowed
            ? others === 0
              ? 'nothing else'
              : amount(others, 'record')
            : `${amount(removal.blocking, 'record')} need it`}
        </span>
        {removal.allowed && (
          <span className="end">
            <Button size="small" danger loading={isLoading} onClick={() => void remove()}>
              Remove {others + 1}
            </Button>
          </span>
        )}
      </header>
      <p className="quiet removal-request mono">{requestOf(record, served)}</p>
      <RowProblems columns={record.columns} problems={refused} />
      {removal.allowed ? (
        <RemovalTree trees={[removal.tree]} />
      ) : (
        <div className="referring">
          <p>It cannot be removed while these refer to it.</p>
          <ul>
            {removal.first.map((to) => (
              <li key={to.number}>
                {to.type} <RecordLinkView to={to} onFollow={onFollow} />
              </li>
            ))}
          </ul>
        </div>
      )}
    </>
  );
}

/** What is sent to remove it through the contract that is looked at. */
const requestOf = (
  { removedBy }: InspectedRecord,
  { kind, name }: Pick<MockEndpoint, 'kind' | 'name'>,
): string =>
  removedBy.find(({ arrangement, release }) =>
    kind === 'arrangement' ? arrangement === name : release === name,
  )?.request ?? '';
