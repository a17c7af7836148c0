import { Button, Input, Popover } from 'antd';
import { useState } from 'react';
import { refusalText } from '../app/api/client.js';
import { Explained } from '../app/help/Explained.js';
import { useAppSelector } from '../app/store.js';
import { isSaved } from '../design/documentSlice.js';
import { releasesOf } from '../design/releases.js';
import { useMakeReleaseMutation } from '../design/releasesApi.js';
import { arrangementName } from '../design/viewSlice.js';

interface Props {
  readonly selected: string | null;
  readonly onSelect: (label: string) => void;
}

/** The releases of the design, and a way to make one of what the contract is now. */
export function Releases({ selected, onSelect }: Props): React.JSX.Element {
  const items = useAppSelector((state) => releasesOf(state, state.document.id ?? ''));
  const arrangement = useAppSelector(arrangementName);
  return (
    <div className="releases" role="group" aria-label="Releases">
      <span className="strong">Releases</span>
      <ul>
        {items.map((release) => (
          <li key={release.label}>
            <button
              type="button"
              className="text-button"
              aria-pressed={release.label === selected}
              onClick={() => onSelect(release.label)}
            >
              {release.label}
            </button>
            {release.end !== null && <span className="quiet"> deprecated</span>}
            {release.arrangement !== arrangement && <span className="quiet"> {release.arrangement}</span>}
          </li>
        ))}
        {items.length === 0 && <li className="quiet">none yet: nobody relies on this contract</li>}
      </ul>
      <MakeRelease onMade={onSelect} />
    </div>
  );
}

function MakeRelease({ onMade }: { readonly onMade: (label: string) => void }): React.JSX.Element {
  const design = useAppSelector((state) => state.document.design?.id ?? '');
  const arrangement = useAppSelector(arrangementName);
  const waits = useAppSelector(({ document }) => !isSaved(document));
  const [makeRelease] = useMakeReleaseMutation();
  const [isOpen, setOpen] = useState(false);
  const [label, setLabel] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const make = async (): Promise<void> => {
    try {
      const made = await makeRelease({ design, label: label.trim(), arrangement }).unwrap();
      setOpen(false);
      setLabel('');
      setProblem(null);
      onMade(made.label);
    } catch (error) {
      setProblem(refusalText(error));
    }
  };
  const content = (
    <div className="make-release">
      <p>
        Freezes the contract of <code>{arrangement}</code> as it is kept now. What would break it is a finding
        from then on.
      </p>
      <Input
        aria-label="Label of the release"
        placeholder="a label, such as 1.0"
        value={label}
        onChange={({ target }) => setLabel(target.value)}
        onPressEnter={() => void make()}
      />
      <Button type="primary" disabled={label.trim() === '' || waits} onClick={() => void make()}>
        Release it
      </Button>
      {waits && <p className="quiet">The last change is not kept yet.</p>}
      {problem !== null && (
        <p className="wrong" role="alert">
          {problem}
        </p>
      )}
    </div>
  );
  return (
    <Popover
      trigger="click"
      placement="topRight"
      arrow={false}
      open={isOpen}
      onOpenChange={setOpen}
      content={content}
    >
      <span>
        <Explained by="contract.release">
          <Button>Release</Button>
        </Explained>
      </span>
    </Popover>
  );
}
