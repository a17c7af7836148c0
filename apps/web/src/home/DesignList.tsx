import { Button, Input } from 'antd';
import { useState } from 'react';
import { MOST_LISTED, refusalText } from '../app/api/client.js';
import type { DesignSummary, Mock, ProblemBody } from '@isomeros/api';
import { ExplainedWords } from '../app/help/Explained.js';
import { DesignListRow } from './DesignListRow.js';
import {
  useCopyDesignMutation,
  useRemoveDesignMutation,
  useRenameDesignMutation,
  useRestoreDesignMutation,
} from './designsApi.js';
import { Notice } from '../app/parts/Notice.js';

interface Props {
  readonly items: readonly DesignSummary[] | null;
  readonly mocks: readonly Mock[];
  readonly problem: ProblemBody | null;
  readonly onOpen: (id: string) => void;
  /** What names are to hold. */
  readonly typed: string;
  readonly onType: (typed: string) => void;
}

/** Every design with its fingerprint, its figures and its mock, latest change first. */
export function DesignList(props: Props): React.JSX.Element {
  const { items, mocks, problem, onOpen, typed, onType } = props;
  const [copyDesign] = useCopyDesignMutation();
  const [removeDesign] = useRemoveDesignMutation();
  const [renameDesign] = useRenameDesignMutation();
  const [restoreDesign] = useRestoreDesignMutation();
  const [failed, setFailed] = useState<string | null>(null);
  // What is there is narrowed at once; what else there is follows from the server.
  const shown = (items ?? []).filter(({ name }) => name.toLowerCase().includes(typed.toLowerCase()));
  const [removed, setRemoved] = useState<DesignSummary | null>(null);
  const act = async (work: () => Promise<unknown>): Promise<boolean> => {
    try {
      await work();
      setFailed(null);
      return true;
    } catch (error) {
      setFailed(refusalText(error));
      return false;
    }
  };
  const remove = async (design: DesignSummary): Promise<void> => {
    if (await act(() => removeDesign(design.id).unwrap())) setRemoved(design);
  };
  const bringBack = async ({ id }: DesignSummary): Promise<void> => {
    if (await act(() => restoreDesign(id).unwrap())) setRemoved(null);
  };
  return (
    <section className="panel" aria-label="Your designs">
      <header className="panel-head">
        <h2>Your designs</h2>
        <span className="quiet">{items === null ? '' : listed(items.length)}</span>
        <span className="end">
          <kbd>Enter</kbd> opens
          <Input
            aria-label="Narrow the designs"
            placeholder="Type to narrow"
            style={{ width: 150 }}
            value={typed}
            onChange={({ target }) => {
              onType(target.value);
            }}
            allowClear
          />
        </span>
      </header>
      {(problem !== null || failed !== null) && <Notice>{failed ?? problem?.detail}</Notice>}
      {removed !== null && (
        <RemovedNotice
          name={removed.name}
          onBringBack={() => void bringBack(removed)}
          onLeave={() => setRemoved(null)}
        />
      )}
      <div className="home-head">
        <span>design</span>
        <ExplainedWords by="designs.tree">path tree, all to one scale</ExplainedWords>
        <ExplainedWords by="designs.findings">findings</ExplainedWords>
        <ExplainedWords by="designs.mock">mock</ExplainedWords>
        <ExplainedWords by="designs.changed">changed</ExplainedWords>
      </div>
      <div className="home-list">
        {items?.length === 0 && <NoDesigns typed={typed} />}
        {shown.map((design) => (
          <DesignListRow
            key={design.id}
            design={design}
            mock={mocks.find((mock) => mock.design === design.id)}
            onOpen={() => {
              onOpen(design.id);
            }}
            onRemove={() => void remove(design)}
            onCopy={() =>
              void act(() =>
                copyDesign({ id: design.id, name: `${design.name}, copy`.slice(0, 120) }).unwrap(),
              )
            }
            onRename={(name) => act(() => renameDesign({ ...design, name }).unwrap())}
          />
        ))}
      </div>
    </section>
  );
}

function NoDesigns({ typed }: { readonly typed: string }): React.JSX.Element {
  return (
    <p className="empty-note">
      {typed === ''
        ? 'No designs yet. Begin an empty one at the right, or copy a sample: the tool shed takes five minutes, the ferries meet every rule once.'
        : `No design is called “${typed}”.`}
    </p>
  );
}

interface RemovedProps {
  readonly name: string;
  readonly onBringBack: () => void;
  readonly onLeave: () => void;
}

function RemovedNotice({ name, onBringBack, onLeave }: RemovedProps): React.JSX.Element {
  return (
    <Notice kind="known">
      {name} is removed, and its mocks stopped.
      <Button onClick={onBringBack}>Bring it back</Button>
      <button type="button" className="text-button" onClick={onLeave}>
        Leave it so
      </button>
    </Notice>
  );
}

const listed = (count: number): string =>
  count < MOST_LISTED ? `${count}, latest change first` : `the latest ${count}; type to find others`;
