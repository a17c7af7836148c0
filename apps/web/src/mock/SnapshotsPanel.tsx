import { Button, Input, Popover } from 'antd';
import { useState } from 'react';
import { api, refusalText } from '../app/api/client.js';
import type { Snapshot } from '@isomeros/api';
import { amount } from '../app/parts/amount.js';

interface Props {
  readonly mock: string;
  readonly onRestore: (snapshot: string) => void;
}

/** When a snapshot was taken, by the reader's clock and without the seconds, so that it keeps to one line. */
const taken = (at: string): string =>
  new Date(at).toLocaleString(undefined, { dateStyle: 'short', timeStyle: 'short' });

/** The snapshots of a mock: taken under a name, put back, or let go. */
export function SnapshotsPanel({ mock, onRestore }: Props): React.JSX.Element {
  const [isOpen, setOpen] = useState(false);
  const [all, setAll] = useState<readonly Snapshot[]>([]);
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const after = (work: Promise<unknown>): void => {
    void work
      .then(() => api.listSnapshots(mock))
      .then((snapshots) => {
        setAll(snapshots);
        setProblem(null);
      })
      .catch((error: unknown) => {
        setProblem(refusalText(error));
      });
  };
  const take = (): void => {
    if (name.trim() === '') return;
    after(api.takeSnapshot(mock, name.trim()));
    setName('');
  };
  const content = (
    <div className="snapshots">
      <Input
        aria-label="Name of the snapshot"
        placeholder="name of a new one"
        value={name}
        onChange={({ target }) => setName(target.value)}
        onPressEnter={take}
      />
      <Button onClick={take}>Keep the records as they are</Button>
      {problem !== null && (
        <p className="wrong" role="alert">
          {problem}
        </p>
      )}
      {all.length === 0 ? (
        <p className="quiet">None yet.</p>
      ) : (
        <ul aria-label="Snapshots">
          {all.map((snapshot) => (
            <li key={snapshot.name}>
              <span className="strong">{snapshot.name}</span>
              <span className="quiet">
                {amount(snapshot.records, 'record')}, {taken(snapshot.takenAt)}
              </span>
              <button
                type="button"
                className="text-button"
                aria-label={`Restore ${snapshot.name}`}
                onClick={() => {
                  setOpen(false);
                  onRestore(snapshot.name);
                }}
              >
                Restore
              </button>
              <button
                type="button"
                className="text-button"
                aria-label={`Remove ${snapshot.name}`}
                onClick={() => after(api.removeSnapshot(mock, snapshot.name))}
              >
                Remove
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
  return (
    <Popover
      trigger="click"
      placement="bottomRight"
      arrow={false}
      open={isOpen}
      onOpenChange={(open) => {
        setOpen(open);
        if (open) after(Promise.resolve());
      }}
      content={content}
    >
      <Button>Snapshots</Button>
    </Popover>
  );
}
