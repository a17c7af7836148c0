import type { MockAction } from '../app/api/client.js';
import type { Mock } from '@isomeros/api';
import { Button, Popconfirm } from 'antd';
import { useState } from 'react';
import { Explained, ExplainedAction, ExplainedWords } from '../app/help/Explained.js';
import { Credentials } from './Credentials.js';
import { endpointText, type MockEndpoint } from './endpoints.js';
import { LoadFact } from './LoadFact.js';
import type { MockView } from './mockView.js';
import { MockEndpoints } from './MockEndpoints.js';
import { SnapshotsPanel } from './SnapshotsPanel.js';
import { FaultsPanel } from './FaultsPanel.js';

interface Props {
  readonly endpoints: readonly MockEndpoint[];
  /** What is looked at. */
  readonly endpoint: MockEndpoint;
  readonly onAct: (action: MockAction) => Promise<void>;
  /** Starts a mock of the arrangements. */
  readonly onServe: () => void;
  readonly view: MockView;
  readonly onView: (view: MockView) => void;
  readonly onRestore: (snapshot: string) => void;
  readonly onRemove: () => void;
}

/** The mock's own line: where it is, what it serves, what can be done with it. */
export function MockToolbar(props: Props): React.JSX.Element {
  const { endpoints, endpoint, onServe, view, onAct, onView, onRestore, onRemove } = props;
  const { mock, url: baseUrl } = endpoint;
  const [copied, setCopied] = useState(false);
  const copy = (): void => {
    void navigator.clipboard.writeText(baseUrl).then(() => {
      setCopied(true);
    });
  };
  return (
    <div className="mock-line">
      <div className="fact">
        <span className="label">
          Base URL{endpoints.length > 1 && ` of ${endpointText(endpoint)}`},{' '}
          {mock.running ? 'running' : 'stopped'}
        </span>
        <span>
          <span className={mock.running ? 'base-url' : 'base-url quiet'} data-testid="base-url">
            {baseUrl}
          </span>
          <ExplainedAction by="mock.copy" onPress={copy}>
            {copied ? 'Copied' : 'Copy'}
          </ExplainedAction>
          <ExplainedAction
            by="mock.run"
            onPress={() => {
              void onAct(mock.running ? 'stop' : 'start');
            }}
          >
            {mock.running ? 'Stop' : 'Start'}
          </ExplainedAction>
        </span>
      </div>
      <div className="fact">
        <span className="label">
          <ExplainedWords by="mock.revision">Serves, revision {mock.servesRevision}</ExplainedWords>
        </span>
        <MockEndpoints endpoints={endpoints} shown={endpoint} onServe={onServe} />
      </div>
      <div className="fact">
        <span className="label">Records, {mock.initialRecords ? 'initial' : `seed ${mock.seed}`}</span>
        <span>
          {mock.records}
          <Explained by="mock.records">
            <button
              type="button"
              className="text-button"
              onClick={() => onView(view === 'records' ? 'exchanges' : 'records')}
            >
              {view === 'records' ? 'Exchanges' : 'Records'}
            </button>
          </Explained>
        </span>
      </div>
      <LoadFact
        mock={mock}
        isShown={view === 'load'}
        onShow={() => onView(view === 'load' ? 'exchanges' : 'load')}
      />
      <Credentials endpoint={endpoint} />
      <Acts mock={mock} onAct={onAct} onRestore={onRestore} onRemove={onRemove} />
    </div>
  );
}

interface ActsProps extends Pick<Props, 'onAct' | 'onRestore' | 'onRemove'> {
  readonly mock: Mock;
}

/** What can be done with the mock as a whole. */
function Acts({ mock, onAct, onRestore, onRemove }: ActsProps): React.JSX.Element {
  return (
    <div className="acts">
      <Explained by="mock.undo">
        <Button onClick={() => void onAct('undo')}>Undo</Button>
      </Explained>
      <Explained by="mock.faults">
        <FaultsPanel mock={mock} />
      </Explained>
      <Explained by="mock.snapshots">
        <SnapshotsPanel mock={mock.id} onRestore={onRestore} />
      </Explained>
      <Explained by="mock.reset">
        <Popconfirm
          title={mock.initialRecords ? 'Reset to the initial records?' : 'Reset to the seed?'}
          description="All records are replaced by fresh ones."
          okText="Reset"
          cancelText="Keep"
          onConfirm={() => {
            void onAct('reset');
          }}
        >
          <Button>Reset</Button>
        </Popconfirm>
      </Explained>
      <Explained by="mock.remove">
        <Popconfirm
          title="Remove the mock?"
          description="Its records go with it."
          okText="Remove"
          cancelText="Keep"
          onConfirm={onRemove}
        >
          <Button>Remove</Button>
        </Popconfirm>
      </Explained>
    </div>
  );
}
