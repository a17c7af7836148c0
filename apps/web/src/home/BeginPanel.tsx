import { Button, Input } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ApiError } from '../app/api/client.js';
import type { Problem, Sample } from '../app/api/types.js';

interface Props {
  readonly samples: readonly Sample[];
  readonly onBegun: (id: string) => void;
}

const EXAMPLE =
  'entity Route\n  name: text(1..120), required\n\nentity Sailing\n  departsAt: instant, required\n\neach Route owns many Sailing as sailings';

/** Ways to begin a design: empty, from a sample, from a model in its notation. */
export function BeginPanel({ samples, onBegun }: Props): React.JSX.Element {
  const [name, setName] = useState('');
  const [pasted, setPasted] = useState('');
  const [problem, setProblem] = useState<Problem | null>(null);
  const begin = async (text: string, as?: string): Promise<void> => {
    try {
      const design = await api.createDesign(text, as);
      onBegun(design.id);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      setProblem(error.problem);
    }
  };
  const named = name.trim();
  return (
    <section className="begin" aria-label="Begin a design">
      <header className="panel-head">
        <h2>Begin a design</h2>
        <span className="quiet">in one of four ways</span>
      </header>
      <form
        className="line"
        onSubmit={(event) => {
          event.preventDefault();
          if (named !== '') void begin('', named);
        }}
      >
        <span className="strong">Empty</span>
        <Input
          aria-label="Its name"
          placeholder="Its name"
          maxLength={120}
          value={name}
          onChange={({ target }) => {
            setName(target.value);
          }}
        />
        <Button htmlType="submit" type="primary" ghost disabled={named === ''}>
          Begin
        </Button>
      </form>
      <header className="panel-head">
        <h3>From a sample</h3>
        <span className="end quiet">a copy of your own</span>
      </header>
      <SampleLines samples={samples} onCopy={(text) => void begin(text)} />
      <header className="panel-head">
        <h3>From what you already have</h3>
        <span className="end quiet">read, never changed</span>
      </header>
      <div className="line">
        <div className="what">
          <div className="strong">SQL DDL</div>
          <div className="quiet">entities, owners, types, uniqueness; you read a report first</div>
        </div>
        <Link className="ant-btn ant-btn-default ant-btn-sm" to="/intake">
          Open
        </Link>
      </div>
      <header className="panel-head">
        <h3>From a model in notation</h3>
      </header>
      <div className="paste">
        <Input.TextArea
          aria-label="A model in notation"
          className="mono"
          rows={7}
          placeholder={EXAMPLE}
          value={pasted}
          onChange={({ target }) => {
            setPasted(target.value);
          }}
        />
        <div className="actions">
          <Button disabled={pasted.trim() === ''} onClick={() => void begin(pasted)}>
            Begin with it
          </Button>
          {problem !== null && (
            <span className="wrong" role="alert">
              {problem.detail}
            </span>
          )}
        </div>
      </div>
    </section>
  );
}

interface SampleProps {
  readonly samples: readonly Sample[];
  readonly onCopy: (text: string) => void;
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
          <Button onClick={() => onCopy(sample.text)}>Copy</Button>
        </div>
      ))}
    </>
  );
}
