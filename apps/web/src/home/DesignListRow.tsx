import { useState } from 'react';
import { Link } from 'react-router';
import { pathOf, type DesignSummary, type Mock } from '@isomeros/api';
import { Fingerprint } from '../app/parts/Fingerprint.js';
import { NameField } from '../app/parts/NameField.js';
import { amount } from '../app/parts/amount.js';
import { Explained, ExplainedAction } from '../app/help/Explained.js';

interface RowProps {
  readonly design: DesignSummary;
  readonly mock: Mock | undefined;
  readonly onOpen: () => void;
  readonly onRemove: () => void;
  readonly onCopy: () => void;
  /** Answers whether the name was taken. */
  readonly onRename: (name: string) => Promise<boolean>;
}

/** One design: its name, its drawn path tree, what it amounts to, and what can be done with it. */
export function DesignListRow(props: RowProps): React.JSX.Element {
  const { design, mock, onOpen, onRename } = props;
  const { figures } = design;
  const [renaming, setRenaming] = useState(false);
  return (
    <article className="home-row" aria-label={design.name} onClick={onOpen}>
      <div>
        {renaming ? (
          <NameField name={design.name} most={120} onName={onRename} onLeave={() => setRenaming(false)} />
        ) : (
          <Link
            className="name"
            to={`/designs/${design.id}/model`}
            onClick={(event) => {
              event.stopPropagation();
            }}
          >
            {design.name}
          </Link>
        )}
        {figures === null ? (
          <div className="quiet">its figures are being worked out</div>
        ) : (
          <>
            <div>
              {amount(figures.entities, 'entity')}, {amount(figures.relationships, 'relationship')}
            </div>
            <div>
              {amount(figures.paths, 'path')}, {amount(figures.operations, 'operation')}
            </div>
          </>
        )}
        {design.initialRecords > 0 && <div>{amount(design.initialRecords, 'initial record')}</div>}
        {!design.valid && <div className="wrong">its text has errors</div>}
      </div>
      <div>
        <Fingerprint columns={design.fingerprint} />
      </div>
      <div>
        {figures !== null && (
          <FindingCounts error={figures.findings.error} doubtful={figures.findings.doubtful} />
        )}
      </div>
      <div>{mock === undefined ? <span className="quiet">none</span> : <MockCell mock={mock} />}</div>
      <Acts {...props} onRenaming={() => setRenaming(true)} />
    </article>
  );
}

function Acts({
  design,
  onCopy,
  onRemove,
  onRenaming,
}: RowProps & { readonly onRenaming: () => void }): React.JSX.Element {
  return (
    <div
      onClick={(event) => {
        event.stopPropagation();
      }}
    >
      <div>{dayOf(design.changedAt)}</div>
      <div className="acts">
        <ExplainedAction by="designs.rename" onPress={onRenaming}>
          Rename
        </ExplainedAction>
        <ExplainedAction by="designs.copy" onPress={onCopy}>
          Copy
        </ExplainedAction>
        <Explained by="designs.file">
          <a className="text-button" href={pathOf('GET /api/designs/{id}/file', { id: design.id })} download>
            File
          </a>
        </Explained>
        <ExplainedAction by="designs.remove" onPress={onRemove}>
          Remove
        </ExplainedAction>
      </div>
    </div>
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
      <div className="quiet">{amount(mock.exchanges, 'exchange')}</div>
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
