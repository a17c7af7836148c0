import type { ImportMode } from '@isomeros/core/transfer';
import { Button, Segmented, Select } from 'antd';
import { useRef, useState, type DragEvent } from 'react';
import { refusalOf } from '../app/api/client.js';
import type { Mock, ProblemBody, ImportResult } from '@isomeros/api';
import { FileInput } from '../app/parts/FileInput.js';
import { WorkProgress } from './WorkProgress.js';
import { useImportRecordsMutation } from './recordsApi.js';
import { useRunning } from './useRunning.js';

interface Props {
  readonly mock: Mock;
  readonly types: readonly string[];
}

type Outcome =
  | { readonly kind: 'none' }
  | { readonly kind: 'taken'; readonly taken: ImportResult }
  | { readonly kind: 'refused'; readonly problem: ProblemBody };

/** Every kind of record at once, in one JSON document. */
const ALL = '';

const EXAMPLE = `{ "Harbour": [ { "code": "KSH", "name": "Kestrel Head" } ] }

or, for one entity:

code,name
KSH,Kestrel Head`;

const WAYS: readonly { readonly value: ImportMode; readonly label: string; readonly means: string }[] = [
  { value: 'merge', label: 'Merge', means: 'Records with a known key change, others are added.' },
  { value: 'replace', label: 'Replace', means: 'Whatever is not given goes.' },
];

/** Takes records in, from a file or from what is pasted. */
export function ImportRecords({ mock, types }: Props): React.JSX.Element {
  const [importRecords] = useImportRecordsMutation();
  const [of, setOf] = useState(ALL);
  const [mode, setMode] = useState<ImportMode>('merge');
  const [text, setText] = useState('');
  const [outcome, setOutcome] = useState<Outcome>({ kind: 'none' });
  const file = useRef<HTMLInputElement>(null);
  const { work, run } = useRunning();
  const open = async (chosen: File): Promise<void> => {
    setText(await chosen.text());
    setOutcome({ kind: 'none' });
    const named = chosen.name.replace(/( \(\d+\))?\.(json|csv|tsv|txt)$/, '');
    if (types.includes(named)) setOf(named);
  };
  const take = async (check: boolean): Promise<void> => {
    setOutcome({ kind: 'none' });
    const isCsv = of !== ALL && !/^\s*[[{]/.test(text);
    try {
      const type = of === ALL ? null : of;
      const taken = await run(importRecords({ mock: mock.id, type, text, isCsv, mode, check }));
      if (taken !== null) setOutcome({ kind: 'taken', taken });
    } catch (error) {
      setOutcome({ kind: 'refused', problem: refusalOf(error) });
    }
  };
  const drop = (event: DragEvent): void => {
    event.preventDefault();
    const [dropped] = event.dataTransfer.files;
    if (dropped !== undefined) void open(dropped);
  };
  const isEmpty = text.trim() === '' || work !== null;
  return (
    <div className="take-in">
      <header className="panel-head">
        <h3>Import</h3>
        <Select
          aria-label="Of which entity"
          value={of}
          onChange={setOf}
          style={{ width: 190 }}
          options={[
            { value: ALL, label: 'all, from one document' },
            ...types.map((kind) => ({ value: kind, label: kind })),
          ]}
        />
        <Segmented<ImportMode>
          value={mode}
          onChange={setMode}
          options={WAYS.map(({ value, label, means }) => ({ value, label, tooltip: means }))}
        />
        <span className="end">
          <Button onClick={() => file.current?.click()}>Open a file</Button>
        </span>
      </header>
      <FileInput
        ref={file}
        label="A file of records"
        accept=".json,.csv,.tsv,.txt"
        onFile={(chosen) => void open(chosen)}
      />
      <textarea
        aria-label="Records as JSON or comma-separated values"
        spellCheck={false}
        placeholder={EXAMPLE}
        value={text}
        onChange={({ target }) => {
          setText(target.value);
          setOutcome({ kind: 'none' });
        }}
        onDragOver={(event) => event.preventDefault()}
        onDrop={drop}
      />
      <div className="acts">
        <span className="quiet">{WAYS.find(({ value }) => value === mode)?.means} All or none.</span>
        <Button disabled={isEmpty} onClick={() => void take(true)}>
          Check
        </Button>
        <Button type="primary" disabled={isEmpty} onClick={() => void take(false)}>
          Import
        </Button>
      </div>
      {work === null ? (
        <TakingReport outcome={outcome} />
      ) : (
        <WorkProgress mock={mock.id} onCancel={work.abort} />
      )}
    </div>
  );
}

function TakingReport({ outcome }: { readonly outcome: Outcome }): React.JSX.Element | null {
  switch (outcome.kind) {
    case 'none':
      return null;
    case 'refused':
      return (
        <div className="taking-report" role="alert">
          <p className="wrong">{outcome.problem.detail}</p>
          <ul aria-label="What does not fit">
            {(outcome.problem.errors ?? []).map(({ pointer, message }, index) => (
              <li key={index}>
                {pointer !== undefined && pointer !== '' && !message.startsWith('Line ') && (
                  <span className="mono">{pointer} </span>
                )}
                {message}
              </li>
            ))}
          </ul>
        </div>
      );
    case 'taken':
      return <TakenTable taken={outcome.taken} />;
  }
}

function TakenTable({ taken: { done, types } }: { readonly taken: ImportResult }): React.JSX.Element {
  const touched = types.filter(
    ({ added, changed, removed, unchanged }) => added + changed + removed + unchanged > 0,
  );
  return (
    <div className="taking-report" role="status">
      <p>{done ? 'Imported.' : 'It fits. Nothing was written yet.'}</p>
      <table className="record-types">
        <thead>
          <tr>
            <th>Entity or pairing</th>
            <th className="number">Added</th>
            <th className="number">Changed</th>
            <th className="number">As before</th>
            <th className="number">Removed</th>
          </tr>
        </thead>
        <tbody>
          {touched.map(({ type, added, changed, unchanged, removed }) => (
            <tr key={type}>
              <td>{type}</td>
              <td className="number">{added}</td>
              <td className="number">{changed}</td>
              <td className="number">{unchanged}</td>
              <td className="number">{removed}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {types.map(({ type, passedOver }) =>
        passedOver === undefined ? null : (
          <p key={type}>
            {type}: {passedOver.join(', ')} {passedOver.length === 1 ? 'is' : 'are'} computed, and not taken
            in.
          </p>
        ),
      )}
    </div>
  );
}
