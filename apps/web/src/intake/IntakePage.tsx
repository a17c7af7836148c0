import { MAX_INTAKE_BYTES, type Intake, type IntakeNote } from '@isomeros/core/intake';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, ApiError } from '../app/api/client.js';
import { Bar } from '../app/frame/Bar.js';
import '../app/frame/frame.css';
import { StageLine } from '../app/frame/StageLine.js';
import { derivationClient } from '../design/derivationClient.js';
import './intake.css';

const EXAMPLE = `CREATE TABLE members (
  id int AUTO_INCREMENT PRIMARY KEY,
  email varchar(120) NOT NULL UNIQUE
);

CREATE TABLE loans (
  id int AUTO_INCREMENT PRIMARY KEY,
  member_id int NOT NULL REFERENCES members (id) ON DELETE CASCADE,
  due_on date NOT NULL
);`;

/** Reads SQL DDL as a model, and says what was understood, assumed and left out before anything is kept. */
export function IntakePage(): React.JSX.Element {
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [source, setSource] = useState('');
  const [intake, setIntake] = useState<Intake | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const bytes = new TextEncoder().encode(source).length;
  const tooLarge = bytes > MAX_INTAKE_BYTES;
  const read = async (): Promise<void> => {
    setProblem(null);
    setIntake(await derivationClient.takeIn(source, name.trim() === '' ? 'Untitled design' : name.trim()));
  };
  const keep = async (text: string): Promise<void> => {
    try {
      const design = await api.createDesign(text);
      void navigate(`/designs/${design.id}/model`);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      setProblem(error.problem.detail);
    }
  };
  return (
    <div className="frame">
      <Bar title="Intake" note="read, never changed; nothing is kept yet" commands={() => []} />
      <StageLine stages={[]} />
      <main className="intake">
        <section className="panel" aria-label="Source">
          <header className="panel-head">
            <h2>SQL DDL</h2>
            <span className="quiet">MariaDB or PostgreSQL</span>
            <span className="end">
              <Input
                aria-label="Name of the design"
                placeholder="Name of the design"
                style={{ width: 170 }}
                value={name}
                onChange={({ target }) => setName(target.value)}
              />
              <Button
                type="primary"
                ghost
                disabled={source.trim() === '' || tooLarge}
                onClick={() => void read()}
              >
                Read it
              </Button>
            </span>
          </header>
          <textarea
            aria-label="SQL DDL"
            className="intake-source"
            placeholder={EXAMPLE}
            spellCheck={false}
            value={source}
            onChange={({ target }) => setSource(target.value)}
          />
          {tooLarge && (
            <div className="notice bad" role="alert">
              The source has {bytes} bytes; the limit is {MAX_INTAKE_BYTES}.
            </div>
          )}
        </section>
        <section className="panel" aria-label="As a model">
          <header className="panel-head">
            <h2>As a model</h2>
            {intake !== null && <span className="quiet">{intake.model.declarations.length} statements</span>}
            <span className="end">
              <Button
                type="primary"
                disabled={intake === null}
                onClick={() => intake !== null && void keep(intake.text)}
              >
                Keep it
              </Button>
            </span>
          </header>
          {problem !== null && (
            <div className="notice bad" role="alert">
              {problem}
            </div>
          )}
          <pre className="panel-body intake-text">{intake?.text ?? ''}</pre>
        </section>
        <Notes title="Assumed" about="nobody said; look twice" notes={intake?.assumed ?? []} />
        <Notes title="Left out" about="and why" notes={intake?.leftOut ?? []} />
      </main>
    </div>
  );
}

interface NotesProps {
  readonly title: string;
  readonly about: string;
  readonly notes: readonly IntakeNote[];
}

function Notes({ title, about, notes }: NotesProps): React.JSX.Element {
  return (
    <section className="panel" aria-label={title}>
      <header className="panel-head">
        <h2>
          {title} {notes.length > 0 && notes.length}
        </h2>
        <span className="quiet">{about}</span>
      </header>
      <ul className="panel-body intake-notes">
        {notes.map(({ line, source, note }, index) => (
          <li key={index}>
            <span className="quiet">line {line}</span>
            <code>{source}</code>
            <span>{note}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
