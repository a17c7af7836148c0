import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { findCommands, type Command } from './commands.js';

const MOST_SHOWN = 60;

interface Props {
  readonly commands: readonly Command[];
  readonly onClose: () => void;
}

/** Reaches everything by typing: arrows choose, Enter goes, Escape leaves. */
export function CommandPalette({ commands, onClose }: Props): React.JSX.Element {
  const [typed, setTyped] = useState('');
  const [chosen, setChosen] = useState(0);
  const list = useRef<HTMLUListElement>(null);
  const found = findCommands(commands, typed, MOST_SHOWN);
  useEffect(() => {
    list.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' });
  }, [chosen]);
  const run = (command: Command | undefined): void => {
    if (command === undefined) return;
    onClose();
    command.run();
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key === 'ArrowDown') setChosen(Math.min(found.length - 1, chosen + 1));
    else if (event.key === 'ArrowUp') setChosen(Math.max(0, chosen - 1));
    else if (event.key === 'Enter') run(found[chosen]);
    else if (event.key === 'Escape') onClose();
    else return;
    event.preventDefault();
  };
  return (
    <div className="command-line" role="dialog" aria-label="Go to">
      <input
        autoFocus
        role="combobox"
        aria-expanded
        aria-controls="commands"
        placeholder="Go to a path, entity, operation or setting"
        value={typed}
        onChange={({ target }) => {
          setTyped(target.value);
          setChosen(0);
        }}
        onKeyDown={onKeyDown}
        onBlur={onClose}
      />
      <ul id="commands" role="listbox" ref={list}>
        {found.length === 0 && <li className="quiet">Nothing here is called that.</li>}
        {found.map((command, index) => (
          <li
            key={`${command.kind} ${command.label} ${command.help ?? ''}`}
            role="option"
            aria-selected={index === chosen}
            onMouseDown={(event) => {
              event.preventDefault();
              run(command);
            }}
          >
            <span className={command.mono === true ? 'label mono' : 'label'}>{command.label}</span>
            {command.help !== undefined && <span className="help quiet">{command.help}</span>}
            <span className="kind">{command.kind}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
