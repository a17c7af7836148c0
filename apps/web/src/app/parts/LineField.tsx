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
  const offered = isOpen ? complete(draft) : [];
  return (
    <AutoComplete
      className="line-field"
      value={draft}
      open={offered.length > 0}
      options={offered.map((line) => ({ value: line, label: <Offer line={line} written={draft} /> }))}
      defaultActiveFirstOption={false}
      popupMatchSelectWidth={false}
      onChange={(text: string) => {
        setDraft(text.replace(/\s*\n\s*/g, ' '));
        setOpen(true);
      }}
      onSelect={(line: string) => {
        setDraft(line);
        setOpen(true);
      }}
      onBlur={commit}
      onInputKeyDown={(event) => {
        if (event.key === 'Escape') {
          event.stopPropagation();
          setOpen(false);
          setDraft(value);
        } else if (event.key === 'Enter' && !isChosen()) {
          event.preventDefault();
          commit();
        }
      }}
    >
      <Input.TextArea
        autoSize
        aria-label={label}
        className="mono"
        autoFocus={autoFocus === true}
        {...(placeholder === undefined ? {} : { placeholder })}
      />
    </AutoComplete>
  );
}

/** Whether one of what is told is chosen now by the arrow keys. */
const isChosen = (): boolean =>
  document.querySelector(
    '.ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option-active',
  ) !== null;

/** What can follow, without what is written before it. */
function Offer({ line, written }: { readonly line: string; readonly written: string }): React.JSX.Element {
  let same = 0;
  while (same < written.length && written[same] === line[same]) same++;
  const start = line.lastIndexOf(' ', same - 1) + 1;
  return <span className="mono">{line.slice(start)}</span>;
}
