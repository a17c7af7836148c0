import { Button, Input } from 'antd';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { refusalOf } from '../app/api/client.js';
import type { NewDesign, ProblemBody, Sample, SourceFormat } from '@isomeros/api';
import { kindOfFile } from '../intake/sources.js';
import { keepSource } from '../intake/pendingSource.js';
import { FileInput } from '../app/parts/FileInput.js';
import { useCreateDesignMutation } from './designsApi.js';
import { FIRST_STATEMENTS } from '../design/firstStatements.js';
import { Notice } from '../app/parts/Notice.js';
import { Explained } from '../app/help/Explained.js';

interface Props {
  readonly samples: readonly Sample[];
  readonly onBegun: (id: string) => void;
}

/** What a design is called that was begun without a name. */
const NAMELESS = 'New design';

/** Ways to begin a design: empty, from a sample, from what there is already, from a model in its notation. */
export function BeginPanel({ samples, onBegun }: Props): React.JSX.Element {
  const [createDesign] = useCreateDesignMutation();
  const [name, setName] = useState('');
  const [pasted, setPasted] = useState('');
  const [problem, setProblem] = useState<ProblemBody | null>(null);
  const begin = async (format: SourceFormat, text: string, more: Partial<NewDesign> = {}): Promise<void> => {
    try {
      const design = await createDesign({ ...more, source: { format, text } }).unwrap();
      onBegun(design.id);
    } catch (error) {
      setProblem(refusalOf(error));
    }
  };
  const named = name.trim();
  return (
    <section className="begin" aria-label="Begin a design">
      <header className="panel-head">
        <h2>Begin a design</h2>
        <span className="quiet">in one of four ways</span>
      </header>
      {problem !== null && <Notice>{problem.detail}</Notice>}
      <form
        className="line"
        onSubmit={(event) => {
          event.preventDefault();
          void begin('notation', '', { name: named === '' ? NAMELESS : named });
        }}
      >
        <span className="strong">Empty</span>
        <Input
          aria-label="Its name"
          placeholder={NAMELESS}
          maxLength={120}
          value={name}
          onChange={({ target }) => {
            setName(target.value);
          }}
        />
        <Explained by="designs.begin">
          <Button htmlType="submit" type="primary" ghost>
            Begin
          </Button>
        </Explained>
      </form>
      <header className="panel-head">
        <h3>From a sample</h3>
        <span className="end quiet">a copy of your own</span>
      </header>
      <SampleLines samples={samples} onCopy={(id) => void begin('sample', id)} />
      <Intakes onBegin={(text, isDesign) => void begin(isDesign ? 'design' : 'notation', text)} />
      <header className="panel-head">
        <h3>From a model in notation</h3>
      </header>
      <div className="paste">
        <Input.TextArea
          aria-label="A model in notation"
          className="mono"
          rows={5}
          placeholder={FIRST_STATEMENTS}
          value={pasted}
          onChange={({ target }) => {
            setPasted(target.value);
          }}
        />
        <div className="actions">
          <Button disabled={pasted.trim() === ''} onClick={() => void begin('notation', pasted)}>
            Begin with it
          </Button>
        </div>
      </div>
    </section>
  );
}

const INTAKES = [
  { from: 'sql', name: 'SQL DDL', what: 'tables, keys, owners' },
  { from: 'live', name: 'A MariaDB schema', what: 'read where it runs' },
  { from: 'json-schema', name: 'JSON Schema', what: 'objects, lists, references' },
  { from: 'records', name: 'Sample records', what: 'JSON or comma-separated' },
] as const;

/** Sources that are read with a report first; a file goes where its ending says. */
function Intakes({
  onBegin,
}: {
  readonly onBegin: (text: string, isDesign: boolean) => void;
}): React.JSX.Element {
  const navigate = useNavigate();
  const file = useRef<HTMLInputElement>(null);
  const open = async (chosen: File): Promise<void> => {
    const text = await chosen.text();
    const kind = kindOfFile(chosen.name, text);
    if (kind === 'design' || kind === 'notation') {
      onBegin(text, kind === 'design');
      return;
    }
    keepSource({ kind, text, name: chosen.name });
    void navigate(`/intake?from=${kind}`);
  };
  return (
    <>
      <header className="panel-head">
        <h3>From what you already have</h3>
        <span className="end quiet">
          <button type="button" className="text-button" onClick={() => file.current?.click()}>
            Open a file
          </button>
        </span>
      </header>
      <FileInput
        ref={file}
        label="A file to begin with"
        accept=".sql,.json,.ndjson,.jsonl,.csv,.tsv,.txt"
        onFile={(chosen) => void open(chosen)}
      />
      <div className="intakes">
        {INTAKES.map(({ from, name, what }) => (
          <Link key={from} to={`/intake?from=${from}`}>
            <span className="strong">{name}</span>
            <span className="quiet">{what}</span>
          </Link>
        ))}
      </div>
    </>
  );
}

interface SampleProps {
  readonly samples: readonly Sample[];
  readonly onCopy: (id: string) => void;
}

function SampleLines({ samples, onCopy }: SampleProps): React.JSX.Element {
  return (
    <>
      {samples.map((sample) => (
        <div className="line" key={sample.id}>
          <div className="what">
            <div className="strong">{sample.name}</div>
            <div className="quiet">
              {sample.figures.entities} entities; {sample.description ?? ''}
            </div>
          </div>
          <Button onClick={() => onCopy(sample.id)}>Copy</Button>
        </div>
      ))}
    </>
  );
}
