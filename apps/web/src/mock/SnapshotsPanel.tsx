import { Button, Input, Popover } from 'antd';
import { useState } from 'react';
import { problemOf, refusalText } from '../app/api/client.js';
import { amount } from '../app/parts/amount.js';
import { useListSnapshotsQuery, useRemoveSnapshotMutation, useTakeSnapshotMutation } from './recordsApi.js';
import { useRunning } from './useRunning.js';
import { WorkProgress } from './WorkProgress.js';

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
  const { data: all = [], error } = useListSnapshotsQuery(mock, {
    skip: !isOpen,
    refetchOnMountOrArgChange: true,
  });
  const { work, run } = useRunning();
  const [takeSnapshot] = useTakeSnapshotMutation();
  const [removeSnapshot] = useRemoveSnapshotMutation();
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const after = (work: Promise<unknown>): void => {
    work.then(
      () => setProblem(null),
      (refused: unknown) => setProblem(refusalText(refused)),
    );
  };
  const told = problem ?? problemOf(error)?.detail ?? null;
  const take = (): void => {
    if (name.trim() === '') return;
    after(run(takeSnapshot({ mock, name: name.trim() })));
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
      <Button disabled={work !== null} onClick={take}>
        Keep the records as they are
      </Button>
      {work !== null && <WorkProgress mock={mock} onCancel={work.abort} />}
      {told !== null && (
        <p className="wrong" role="alert">
          {told}
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
                onClick={() => after(removeSnapshot({ mock, name: snapshot.name }).unwrap())}
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
      onOpenChange={setOpen}
      content={content}
    >
      <Button>Snapshots</Button>
    </Popover>
  );
}
