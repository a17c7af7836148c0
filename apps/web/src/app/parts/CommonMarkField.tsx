import { Mentions } from 'antd';
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { CommonMark } from './CommonMark.js';

interface Props {
  readonly label: string;
  readonly value: string;
  /** What stands there while nothing is written. */
  readonly placeholder: string;
  readonly operations: ReadonlySet<string>;
  readonly onOperation: (operation: string) => void;
  readonly onCommit: (value: string) => void;
}

/**
 * A text in CommonMark as it reads; pressed, or on Enter, it is written, with what it will read like beside it. Leaving
 * it or Ctrl and Enter take it, Escape leaves it as it was. `[` offers operations.
 */
export function CommonMarkField({
  label,
  value,
  placeholder,
  operations,
  onOperation,
  onCommit,
}: Props): React.JSX.Element {
  const [draft, setDraft] = useState<string | null>(null);
  useEffect(() => setDraft(null), [value]);
  // Who leaves it by a key goes on from where it was.
  const isLeftByKey = useRef(false);
  const opener = (button: HTMLButtonElement | null): void => {
    if (button === null || !isLeftByKey.current) return;
    isLeftByKey.current = false;
    button.focus();
  };
  if (draft === null)
    return value === '' ? (
      <button
        type="button"
        ref={opener}
        className="plain-button common-mark-field quiet"
        aria-label={`Write: ${label}. ${placeholder}`}
        onClick={() => setDraft(value)}
      >
        {placeholder}
      </button>
    ) : (
      <div className="common-mark-field" onClick={() => setDraft(value)}>
        <CommonMark text={value} operations={operations} onOperation={onOperation} />
        <button
          type="button"
          ref={opener}
          className="text-button"
          aria-label={`Write: ${label}`}
          onClick={() => setDraft(value)}
        >
          Write
        </button>
      </div>
    );
  const take = (): void => {
    setDraft(null);
    if (draft.trim() !== value) onCommit(draft.trim());
  };
  return (
    <WrittenText
      label={label}
      draft={draft}
      operations={operations}
      onDraft={setDraft}
      onTake={take}
      onKey={() => {
        isLeftByKey.current = true;
      }}
      onLeave={() => setDraft(null)}
    />
  );
}

interface WrittenProps {
  readonly label: string;
  readonly draft: string;
  readonly operations: ReadonlySet<string>;
  readonly onDraft: (draft: string) => void;
  readonly onTake: () => void;
  /** Before it is left by a key. */
  readonly onKey: () => void;
  readonly onLeave: () => void;
}

const NO_OPERATION = (): void => undefined;

function WrittenText({
  label,
  draft,
  operations,
  onDraft,
  onTake,
  onKey,
  onLeave,
}: WrittenProps): React.JSX.Element {
  const shown = useDeferredValue(draft);
  const options = useMemo(() => [...operations].map((id) => ({ value: `${id}]`, label: id })), [operations]);
  return (
    <div className="common-mark-written">
      <Mentions
        autoFocus
        autoSize={{ minRows: 3, maxRows: 14 }}
        aria-label={label}
        prefix="["
        split=""
        options={options}
        notFoundContent={null}
        value={draft}
        onChange={onDraft}
        onBlur={onTake}
        onKeyDown={(event) => {
          if (event.key === 'Escape') {
            event.stopPropagation();
            onKey();
            onLeave();
          } else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
            event.preventDefault();
            onKey();
            onTake();
          }
        }}
      />
      <section aria-label="How it reads">
        <p className="quiet">
          CommonMark, as it reads · {draft.length} characters · Ctrl Enter takes it, Escape leaves it
        </p>
        <CommonMark text={shown} operations={operations} onOperation={NO_OPERATION} />
      </section>
    </div>
  );
}
