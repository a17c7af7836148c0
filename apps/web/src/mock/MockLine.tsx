import { Button, Popconfirm } from 'antd';
import { useState } from 'react';
import type { Mock } from '../app/api/types.js';

interface Props {
  readonly mock: Mock;
  readonly onAct: (action: 'start' | 'stop' | 'reset') => void;
  readonly onRemove: () => void;
}

/** The mock's own line: where it is, what it serves, what can be done with it. */
export function MockLine({ mock, onAct, onRemove }: Props): React.JSX.Element {
  const [copied, setCopied] = useState(false);
  const baseUrl = Object.values(mock.baseUrls)[0] ?? '';
  const copy = (): void => {
    void navigator.clipboard.writeText(baseUrl).then(() => {
      setCopied(true);
    });
  };
  return (
    <div className="mock-line">
      <div className="fact">
        <span className="label">{mock.running ? 'Base URL, running' : 'Base URL, stopped'}</span>
        <span>
          <span className={mock.running ? 'base-url' : 'base-url quiet'} data-testid="base-url">
            {baseUrl}
          </span>
          <button type="button" className="text-button" onClick={copy}>
            {copied ? 'Copied' : 'Copy'}
          </button>
          <button
            type="button"
            className="text-button"
            onClick={() => {
              onAct(mock.running ? 'stop' : 'start');
            }}
          >
            {mock.running ? 'Stop' : 'Start'}
          </button>
        </span>
      </div>
      <div className="fact">
        <span className="label">Serves</span>
        <span>
          {mock.arrangements.join(', ')}, revision {mock.servesRevision}
        </span>
      </div>
      <div className="fact">
        <span className="label">Records, seed {mock.seed}</span>
        <span>{mock.records}</span>
      </div>
      <div className="acts">
        <Popconfirm
          title="Reset to the seed?"
          description="All records are replaced by fresh ones."
          okText="Reset"
          cancelText="Keep"
          onConfirm={() => {
            onAct('reset');
          }}
        >
          <Button>Reset</Button>
        </Popconfirm>
        <Popconfirm
          title="Remove the mock?"
          description="Its records go with it."
          okText="Remove"
          cancelText="Keep"
          onConfirm={onRemove}
        >
          <Button>Remove</Button>
        </Popconfirm>
      </div>
    </div>
  );
}
