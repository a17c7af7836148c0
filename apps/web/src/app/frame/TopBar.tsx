import { useEffect, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { lookChosen, useAppDispatch, useAppSelector } from '../store.js';
import { CommandPalette } from './CommandPalette.js';
import type { Command } from './commands.js';

interface Props {
  readonly title: string;
  /** What stands after the title. */
  readonly chooser?: ReactNode;
  readonly note?: ReactNode;
  readonly keeping?: ReactNode;
  readonly commands: () => readonly Command[];
}

/** The top line: where we are, the command line, and whether everything is kept. */
export function TopBar({ title, chooser, note, keeping, commands }: Props): React.JSX.Element {
  const [open, setOpen] = useState(false);
  const look = useAppSelector((state) => state.look);
  const dispatch = useAppDispatch();
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent): void => {
      if (event.key.toLowerCase() !== 'k' || !(event.ctrlKey || event.metaKey)) return;
      event.preventDefault();
      setOpen(true);
    };
    window.addEventListener('keydown', onKeyDown, true);
    return () => {
      window.removeEventListener('keydown', onKeyDown, true);
    };
  }, []);
  const other = look === 'light' ? 'dark' : 'light';
  return (
    <header className="bar">
      <Link className="brand" to="/">
        Isomeros
      </Link>
      <h1>{title}</h1>
      {chooser}
      {note !== undefined && <span className="quiet">{note}</span>}
      <button
        type="button"
        className="go-to"
        onClick={() => {
          setOpen(true);
        }}
      >
        Go to a path, entity, operation or setting <kbd>Ctrl K</kbd>
      </button>
      {keeping ?? <span className="keeping" />}
      <button
        type="button"
        className="look"
        title={`Use the ${other} look`}
        onClick={() => {
          dispatch(lookChosen(other));
        }}
      >
        {other === 'dark' ? 'Dark' : 'Light'}
      </button>
      {open && (
        <CommandPalette
          commands={commands()}
          onClose={() => {
            setOpen(false);
          }}
        />
      )}
    </header>
  );
}
