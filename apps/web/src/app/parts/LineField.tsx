import { AutoComplete, Input } from 'antd';
import { useEffect, useState } from 'react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  readonly autoFocus?: boolean;
  /** Whole lines that what is written can go on to be. */
  readonly complete: (text: string) => readonly string[];
  readonly onCommit: (value: string) => void;
}

/**
 * A line in a notation, with what can follow told below it. Enter takes what is chosen there, else the line; leaving it
 * takes the line; Escape puts the old one back.
 */
export function LineField({
  label,
  value,
  placeholder,
  autoFocus,
  complete,
  onCommit,
}: Props): React.JSX.Element {
  const [draft, setDraft] = useState(value);
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    setDraft(value);
  }, [value]);
  const commit = (): void => {
    setOpen(false);
    if (draft !== value) onCommit(draft.trim());
  };
  // Only the arrow keys choose: a pointer that rests where the list opens does not.
  const [isChoosing, setChoosing] = useState(false);
  const onKey = (event: React.KeyboardEvent): void => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') setChoosing(offered.length > 0);
    else if (event.key === 'Escape') {
      event.stopPropagation();
      setOpen(false);
      setDraft(value);
    } else if (event.key === 'Enter' && !isChoosing) {
      event.preventDefault();
      event.stopPropagation();
      commit();
    }
  };
  const offered = isOpen ? complete(draft) : [];
  return (
    <div className="line-field" onKeyDownCapture={onKey}>
      <AutoComplete
        value={draft}
        open={offered.length > 0}
        options={offered.map((line) => ({ value: line, label: <Offer line={line} written={draft} /> }))}
        defaultActiveFirstOption={false}
        popupMatchSelectWidth={false}
        onChange={(text: string) => {
          setDraft(text.replace(/\s*\n\s*/g, ' '));
          setOpen(true);
          setChoosing(false);
        }}
        onBlur={commit}
      >
        <Input.TextArea
          autoSize
          aria-label={label}
          className="mono"
          autoFocus={autoFocus === true}
          {...(placeholder === undefined ? {} : { placeholder })}
        />
      </AutoComplete>
    </div>
  );
}

/** What can follow, without what is written before it. */
function Offer({ line, written }: { readonly line: string; readonly written: string }): React.JSX.Element {
  let same = 0;
  while (same < written.length && written[same] === line[same]) same++;
  const start = line.lastIndexOf(' ', same - 1) + 1;
  return <span className="mono">{line.slice(start)}</span>;
}
