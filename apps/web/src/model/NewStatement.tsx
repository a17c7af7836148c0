import { Button, Input } from 'antd';
import { useState } from 'react';

/** A statement that is added once it has a name. */
export interface Addition {
  /** What stands before the name. */
  readonly before: string;
  readonly example: string;
  readonly pattern: RegExp;
  /** Names that are used already. */
  readonly taken: ReadonlySet<string>;
  /** The statement, and the identity of what it adds. */
  readonly statement: (name: string) => readonly [statement: string, id: string];
}

interface Props {
  readonly addition: Addition;
  readonly onName: (name: string) => void;
  readonly onLeave: () => void;
}

/** Asks for the name of what is added: until there is one, nothing is added. */
export function NewStatement({ addition, onName, onLeave }: Props): React.JSX.Element {
  const { before, example, pattern, taken } = addition;
  const [name, setName] = useState('');
  const wrong = problemOf(name, pattern, taken);
  const take = (): void => {
    if (name !== '' && wrong === null) onName(name);
  };
  return (
    <div className="new-statement">
      <code>{before}</code>
      <Input
        autoFocus
        className="mono"
        aria-label="Name of what is added"
        placeholder={example}
        value={name}
        onChange={({ target }) => setName(target.value.trim())}
        onPressEnter={take}
        onKeyDown={({ key }) => {
          if (key === 'Escape') onLeave();
        }}
      />
      <Button type="primary" disabled={name === '' || wrong !== null} onClick={take}>
        Add
      </Button>
      <Button onClick={onLeave}>Cancel</Button>
      {wrong !== null && (
        <span className="wrong" role="alert">
          {wrong}
        </span>
      )}
    </div>
  );
}

function problemOf(name: string, pattern: RegExp, taken: ReadonlySet<string>): string | null {
  if (name === '') return null;
  if (!pattern.test(name))
    return `Expected a name in ${pattern.test('Aa') ? 'PascalCase' : 'camelCase'}, letters and digits.`;
  return taken.has(name) ? `${name} is there already.` : null;
}
