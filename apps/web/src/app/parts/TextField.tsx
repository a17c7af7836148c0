import { Input } from 'antd';
import { useEffect, useState } from 'react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  readonly mono?: boolean;
  readonly borderless?: boolean;
  /** Whether a long text goes on in further lines; it is one line of text all the same. */
  readonly wraps?: boolean;
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
  wraps,
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
  const shared = {
    'aria-label': label,
    variant: borderless === true ? 'borderless' : 'outlined',
    ...(placeholder === undefined ? {} : { placeholder }),
    className: mono === true ? 'mono' : '',
    autoFocus: autoFocus === true,
    value: draft,
    onBlur: commit,
    onPressEnter: (event: React.KeyboardEvent): void => {
      event.preventDefault();
      commit();
    },
    onKeyDown: (event: React.KeyboardEvent): void => {
      if (event.key !== 'Escape') return;
      event.stopPropagation();
      setDraft(value);
    },
  } as const;
  return wraps === true ? (
    <Input.TextArea autoSize {...shared} onChange={({ target }) => setDraft(oneLine(target.value))} />
  ) : (
    <Input {...shared} onChange={({ target }) => setDraft(target.value)} />
  );
}

/** Pasted lines become one. */
const oneLine = (text: string): string => text.replace(/\s*\n\s*/g, ' ');
