import {
  ARRANGEMENT_NAME,
  findArrangement,
  MOST_ARRANGEMENTS,
  plainArrangement,
  withArrangement,
  type ArrangementChoices,
} from '@isomeros/core/arrangement';
import { Button, Input, Popover } from 'antd';
import { useState } from 'react';
import { choicesMade, designChanged, isSaved } from '../../design/documentSlice.js';
import { arrangementName, arrangementChosen } from '../../design/viewSlice.js';
import { useRemoveArrangementMutation, useRenameArrangementMutation } from '../../design/designApi.js';
import { refusalText, type OfRevision } from '../api/client.js';
import type { Design } from '@isomeros/api';
import { NameField } from '../parts/NameField.js';
import { useAppDispatch, useAppSelector } from '../store.js';
import { Explained } from '../help/Explained.js';

/** The arrangement that is looked at, and the others: chosen, copied, renamed and removed from here. */
export function ArrangementChooser(): React.JSX.Element {
  const arrangement = useAppSelector(arrangementName);
  const [open, setOpen] = useState(false);
  return (
    <Explained by="arrange.chooser">
      <Popover
        trigger="click"
        placement="bottomLeft"
        arrow={false}
        open={open}
        onOpenChange={setOpen}
        content={<Arrangements onDone={() => setOpen(false)} />}
      >
        <button type="button" className="arrangement" aria-expanded={open}>
          {arrangement} ▾
        </button>
      </Popover>
    </Explained>
  );
}

function Arrangements({ onDone }: { readonly onDone: () => void }): React.JSX.Element {
  const choices = useAppSelector((state) => state.document.choices);
  const design = useAppSelector((state) => state.document.design);
  const arrangement = useAppSelector(arrangementName);
  const isKept = useAppSelector(({ document }) => isSaved(document));
  const [renameArrangement] = useRenameArrangementMutation();
  const [removeArrangement] = useRemoveArrangementMutation();
  const dispatch = useAppDispatch();
  const [problem, setProblem] = useState<string | null>(null);
  const look = (name: string): void => {
    dispatch(arrangementChosen(name));
    onDone();
  };
  /** Asks the server, so that mocks that serve the arrangement are known. */
  const ask = async (act: (of: OfRevision) => Promise<Design>): Promise<boolean> => {
    if (design === null) return false;
    try {
      dispatch(designChanged(await act(design)));
      setProblem(null);
      return true;
    } catch (error) {
      setProblem(refusalText(error));
      return false;
    }
  };
  const rename = async (from: string, to: string): Promise<boolean> => {
    if (!(await ask(({ id, revision }) => renameArrangement({ id, from, to, revision }).unwrap())))
      return false;
    if (from === arrangement) dispatch(arrangementChosen(to));
    return true;
  };
  const make = (made: ArrangementChoices): void => {
    dispatch(choicesMade(withArrangement(choices, made)));
    look(made.name);
  };
  return (
    <div className="arrangements">
      <ul>
        {choices.arrangements.map(({ name }) => (
          <ArrangementRow
            key={name}
            name={name}
            isCurrent={name === arrangement}
            mayRename={isKept}
            mayRemove={isKept && choices.arrangements.length > 1}
            onLook={() => look(name)}
            onRename={(to) => rename(name, to)}
            onRemove={() =>
              void ask(({ id, revision }) => removeArrangement({ id, name, revision }).unwrap())
            }
          />
        ))}
      </ul>
      {problem !== null && (
        <p className="wrong" role="alert">
          {problem}
        </p>
      )}
      <NewArrangement
        like={arrangement}
        taken={choices.arrangements.map(({ name }) => name)}
        onMake={(name, isCopy) => {
          const basis = isCopy ? findArrangement(choices, arrangement) : undefined;
          make({ ...(basis ?? plainArrangement(name)), name });
        }}
      />
    </div>
  );
}

interface RowProps {
  readonly name: string;
  readonly isCurrent: boolean;
  readonly mayRename: boolean;
  readonly mayRemove: boolean;
  readonly onLook: () => void;
  readonly onRename: (to: string) => Promise<boolean>;
  readonly onRemove: () => void;
}

function ArrangementRow(props: RowProps): React.JSX.Element {
  const { name, isCurrent, mayRename, mayRemove, onLook, onRename, onRemove } = props;
  const [renaming, setRenaming] = useState(false);
  return (
    <li>
      {renaming ? (
        <NameField name={name} most={60} onName={onRename} onLeave={() => setRenaming(false)} />
      ) : (
        <button
          type="button"
          className={isCurrent ? 'plain-button strong' : 'plain-button'}
          aria-current={isCurrent}
          onClick={onLook}
        >
          {name}
        </button>
      )}
      <button
        type="button"
        className="text-button"
        disabled={!mayRename}
        aria-label={`Rename ${name}`}
        onClick={() => setRenaming(true)}
      >
        rename
      </button>
      <button
        type="button"
        className="text-button"
        disabled={!mayRemove}
        aria-label={`Remove ${name}`}
        onClick={onRemove}
      >
        remove
      </button>
    </li>
  );
}

interface NewProps {
  readonly like: string;
  readonly taken: readonly string[];
  readonly onMake: (name: string, isCopy: boolean) => void;
}

function NewArrangement({ like, taken, onMake }: NewProps): React.JSX.Element {
  const [typed, setTyped] = useState('');
  const name = typed.trim();
  const wrong = taken.includes(name)
    ? `There is an arrangement ${name} already.`
    : name !== '' && !ARRANGEMENT_NAME.test(name)
      ? 'Letters, digits, spaces, dots, hyphens and underscores only.'
      : null;
  const isFull = taken.length >= MOST_ARRANGEMENTS;
  const mayMake = name !== '' && wrong === null && !isFull;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (mayMake) onMake(name, true);
      }}
    >
      <Input
        aria-label="Name of another arrangement"
        placeholder={isFull ? `At most ${MOST_ARRANGEMENTS}` : 'Another arrangement'}
        status={wrong === null ? '' : 'error'}
        maxLength={60}
        disabled={isFull}
        value={typed}
        onChange={({ target }) => setTyped(target.value)}
      />
      <div className="acts">
        <Button htmlType="submit" disabled={!mayMake}>
          Copy {like}
        </Button>
        <Button disabled={!mayMake} onClick={() => onMake(name, false)}>
          Begin from defaults
        </Button>
      </div>
      {wrong !== null && <p className="wrong">{wrong}</p>}
    </form>
  );
}
