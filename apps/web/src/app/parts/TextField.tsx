import { Input } from 'antd';
import { useEffect, useState } from 'react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  readonly mono?: boolean;
  readonly borderless?: boolean;
  /** Whether it is to be written in at once. */
  readonly autoFocus?: boolean;
  readonly onCommit: (value: string) => void;
}

/** A text that is taken over when it is left or Enter is pressed; Escape puts the old one back. */
export function TextField({
  label,
  value,
  placeholder,
  mono,
  borderless,
  autoFocus,
  onCommit,
}: Props): React.JSX.Element {
  const [draft, setDraft] = useState(value);
  useEffect(() => {
    setDraft(value);
  }, [value]);
  const commit = (): void => {
    if (draft !== value) onCommit(draft);
  };
  return (
    <Input
      aria-label={label}
      variant={borderless === true ? 'borderless' : 'outlined'}
      {...(placeholder === undefined ? {} : { placeholder })}
      className={mono === true ? 'mono' : ''}
      autoFocus={autoFocus === true}
      value={draft}
      onChange={({ target }) => setDraft(target.value)}
      onBlur={commit}
      onPressEnter={commit}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.stopPropagation();
        setDraft(value);
      }}
    />
  );
}
