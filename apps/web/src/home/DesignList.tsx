import { Input, Popconfirm } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ApiError } from '../app/api/client.js';
import type { DesignSummary, Mock, Problem } from '../app/api/types.js';
import { Fingerprint } from '../app/parts/Fingerprint.js';

interface Props {
  readonly items: readonly DesignSummary[] | null;
  readonly mocks: readonly Mock[];
  readonly problem: Problem | null;
  readonly onOpen: (id: string) => void;
  readonly onChanged: () => void;
}

/** Every design with its fingerprint, its figures and its mock, latest change first. */
export function DesignList({ items, mocks, problem, onOpen, onChanged }: Props): React.JSX.Element {
  const [typed, setTyped] = useState('');
  const [failed, setFailed] = useState<string | null>(null);
  const shown = (items ?? []).filter(({ name }) => name.toLowerCase().includes(typed.toLowerCase()));
  const remove = async (id: string): Promise<void> => {
    try {
      await api.removeDesign(id);
      setFailed(null);
      onChanged();
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      setFailed(error.problem.detail);
    }
  };
  return (
    <section className="panel" aria-label="Your designs">
      <header className="panel-head">
        <h2>Your designs</h2>
        <span className="quiet">{items === null ? '' : `${items.length}, latest change first`}</span>
        <span className="end">
          <kbd>Enter</kbd> opens
          <Input
            aria-label="Narrow the designs"
            placeholder="Type to narrow"
            style={{ width: 150 }}
            value={typed}
            onChange={({ target }) => {
              setTyped(target.value);
            }}
            allowClear
          />
        </span>
      </header>
      {(problem !== null || failed !== null) && (
        <div className="notice bad" role="alert">
          {failed ?? problem?.detail}
        </div>
      )}
      <div className="home-head">
        <span>design</span>
        <span>path tree, all to one scale</span>
        <span>findings</span>
        <span>mock</span>
        <span>changed</span>
      </div>
      <div className="home-list">
        {items?.length === 0 && (
          <p className="empty-note">
            No designs yet. Begin an empty one at the right, or copy a sample: the tool shed takes five
            minutes, the ferries meet every rule once.
          </p>
        )}
        {shown.map((design) => (
          <DesignRow
            key={design.id}
            design={design}
            mock={mocks.find((mock) => mock.design === design.id)}
            onOpen={() => {
              onOpen(design.id);
            }}
            onRemove={() => void remove(design.id)}
          />
        ))}
      </div>
    </section>
  );
}

interface RowProps {
  readonly design: DesignSummary;
  readonly mock: Mock | undefined;
  readonly onOpen: () => void;
  readonly onRemove: () => void;
}

function DesignRow({ design, mock, onOpen, onRemove }: RowProps): React.JSX.Element {
  const { figures } = design;
  return (
    <article className="home-row" onClick={onOpen}>
      <div>
        <Link
          className="name"
          to={`/designs/${design.id}/model`}
          onClick={(event) => {
            event.stopPropagation();
          }}
        >
          {design.name}
        </Link>
        <div>
          {figures.entities} entities, {figures.relationships} relationships
        </div>
        <div>
          {figures.paths} paths, {figures.operations} operations
        </div>
        {!design.sound && <div className="wrong">its text has errors</div>}
      </div>
      <div>
        <Fingerprint columns={design.fingerprint} />
      </div>
      <div>
        <FindingCounts error={figures.findings.error} doubtful={figures.findings.doubtful} />
      </div>
      <div>{mock === undefined ? <span className="quiet">none</span> : <MockCell mock={mock} />}</div>
      <div
        onClick={(event) => {
          event.stopPropagation();
        }}
      >
        <div>{dayOf(design.changedAt)}</div>
        <Popconfirm
          title={`Remove ${design.name}?`}
          description={mock === undefined ? 'Its text goes with it.' : 'Its mock and all records go with it.'}
          okText="Remove"
          cancelText="Keep"
          onConfirm={onRemove}
        >
          <button type="button" className="text-button remove">
            Remove
          </button>
        </Popconfirm>
      </div>
    </article>
  );
}

function FindingCounts({
  error,
  doubtful,
}: {
  readonly error: number;
  readonly doubtful: number;
}): React.JSX.Element {
  if (error + doubtful === 0) return <span className="quiet">none</span>;
  return (
    <>
      {error > 0 && (
        <div>
          <span className="severity error">{error}</span>
          {error === 1 ? 'error' : 'errors'}
        </div>
      )}
      {doubtful > 0 && (
        <div>
          <span className="severity doubtful">{doubtful}</span>
          doubtful
        </div>
      )}
    </>
  );
}

function MockCell({ mock }: { readonly mock: Mock }): React.JSX.Element {
  return (
    <>
      <div className={mock.running ? 'mono' : 'quiet'}>{mock.running ? `:${mock.port}` : 'stopped'}</div>
      <div className="quiet">{mock.exchanges} exchanges</div>
    </>
  );
}

/** The time of today, the day otherwise. */
function dayOf(at: string): string {
  const date = new Date(at);
  const today = date.toDateString() === new Date().toDateString();
  return today
    ? `today ${date.toTimeString().slice(0, 5)}`
    : date.toLocaleDateString('en-GB', { day: 'numeric', month: 'long' });
}
