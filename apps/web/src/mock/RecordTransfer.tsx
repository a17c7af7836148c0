import { useState } from 'react';
import { api, problemOf } from '../app/api/client.js';
import type { RecordType, Mock } from '@isomeros/api';
import { SplitPanels } from '../app/parts/SplitPanels.js';
import { SeedRecords } from './SeedRecords.js';
import { ImportRecords } from './ImportRecords.js';
import { useListRecordTypesQuery } from './recordsApi.js';

const NONE: readonly RecordType[] = [];

interface Props {
  readonly mock: Mock;
  /** Puts fresh seed records in place of all. */
  readonly onReset: () => Promise<void>;
  /** Back to the tables. */
  readonly onClose: () => void;
}

/** Records out and in, and what is wanted when they are seeded. */
export function RecordTransfer({ mock, onReset, onClose }: Props): React.JSX.Element {
  const { data: types = NONE, error } = useListRecordTypesQuery(mock.id, { refetchOnMountOrArgChange: true });
  return (
    <SplitPanels name="record-transfer" first={540}>
      <RecordTypes mock={mock} types={types} problem={problemOf(error)?.detail ?? null} onClose={onClose} />
      <section className="panel records-in" aria-label="Import and seed">
        <ImportRecords mock={mock} types={types.map(({ name }) => name)} />
        <SeedRecords mock={mock} onReset={onReset} />
      </section>
    </SplitPanels>
  );
}

interface RecordTypesProps {
  readonly mock: Mock;
  readonly types: readonly RecordType[];
  readonly problem: string | null;
  readonly onClose: () => void;
}

function RecordTypes({ mock, types, problem, onClose }: RecordTypesProps): React.JSX.Element {
  const [secrets, setSecrets] = useState(false);
  const all = types.reduce((sum, { records }) => sum + records, 0);
  const shown: Readonly<Record<string, string>> = secrets ? { secrets: 'include' } : {};
  return (
    <section className="panel" aria-label="Export">
      <header className="panel-head">
        <h3>Export</h3>
        {types.some(({ hasSecrets }) => hasSecrets) && (
          <label className="quiet">
            <input
              type="checkbox"
              checked={secrets}
              onChange={({ target }) => {
                setSecrets(target.checked);
              }}
            />{' '}
            with write-only values
          </label>
        )}
        <span className="end">
          <button type="button" className="text-button" onClick={onClose}>
            Back to the records
          </button>
        </span>
      </header>
      <div className="panel-body">
        {problem !== null && (
          <p className="wrong" role="alert">
            {problem}
          </p>
        )}
        <table className="record-types">
          <thead>
            <tr>
              <th>Entity or pairing</th>
              <th className="number">Records</th>
              <th>Export</th>
            </tr>
          </thead>
          <tbody>
            <tr className="all">
              <td>All</td>
              <td className="number">{all}</td>
              <td>
                <a href={api.recordsAddress(mock.id, null, shown)} download>
                  JSON
                </a>
              </td>
            </tr>
            {types.map(({ name, records }) => (
              <tr key={name}>
                <td>{name}</td>
                <td className="number">{records}</td>
                <td>
                  {(['json', 'csv'] as const).map((as) => (
                    <a
                      key={as}
                      aria-label={`${name} as ${as.toUpperCase()}`}
                      href={api.recordsAddress(mock.id, name, { as, ...shown })}
                      download
                    >
                      {as.toUpperCase()}
                    </a>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
