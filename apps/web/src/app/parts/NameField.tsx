import { Input } from 'antd';
import { useRef, useState } from 'react';

interface Props {
  readonly name: string;
  /** What it is called to who cannot see it. */
  readonly label?: string;
  /** Whether the name is a proposal, that may be taken as it is. */
  readonly isProposed?: boolean;
  /** The most characters it may have. */
  readonly most: number;
  /** Whether the name could be taken. */
  readonly onName: (name: string) => Promise<boolean>;
  readonly onLeave: () => void;
}

/** Enter takes the name, Escape leaves the old one. */
export function NameField({ name, label, isProposed, most, onName, onLeave }: Props): React.JSX.Element {
  const [typed, setTyped] = useState(name);
  const isDone = useRef(false);
  const take = async (): Promise<void> => {
    const wanted = typed.trim();
    if (isDone.current) return;
    isDone.current = true;
    const isKept = wanted === name && isProposed !== true;
    if (wanted === '' || isKept || (await onName(wanted))) onLeave();
    else isDone.current = false;
  };
  return (
    <Input
      autoFocus
      aria-label={label ?? `New name of ${name}`}
      maxLength={most}
      value={typed}
      onClick={(event) => event.stopPropagation()}
      onFocus={({ target }) => target.select()}
      onChange={({ target }) => setTyped(target.value)}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        isDone.current = true;
        onLeave();
      }}
      onPressEnter={() => void take()}
      onBlur={() => (isProposed === true ? onLeave() : void take())}
    />
  );
}
