import { Tooltip } from 'antd';
import { useRef, useState, type ReactNode } from 'react';
import { helpOf, helpText, type HelpName } from './help.js';

interface Props {
  readonly by: HelpName;
  readonly children: ReactNode;
}

/** What lies below the help can be pressed through it. */
const UNTOUCHED = { root: { pointerEvents: 'none' } } as const;
const DELAY_SECONDS = 0.35;

/** Something that says on hover and on focus what it is. What is in it has the focus itself, where it can have it. */
export function Explained({ by, children }: Props): React.JSX.Element {
  const [isOpen, setOpen] = useState(false);
  // Whoever presses it knows what it is; the help would cover what follows.
  const [isPressed, setPressed] = useState(false);
  const own = useRef<HTMLSpanElement>(null);
  return (
    <Tooltip
      title={<Help name={by} />}
      trigger={['hover', 'focus']}
      mouseEnterDelay={DELAY_SECONDS}
      styles={UNTOUCHED}
      open={isOpen && !isPressed}
      // A panel that opens from it is in it for React, and elsewhere in the page: its focus is none of this one's.
      onOpenChange={(opens) => setOpen(opens && own.current?.matches(':hover, :focus-within') === true)}
    >
      <span
        ref={own}
        className="explained"
        aria-description={helpText(by)}
        onPointerDown={() => setPressed(true)}
        onKeyDown={({ key }) => {
          if (key === 'Enter' || key === ' ') setPressed(true);
        }}
        onBlur={() => setPressed(false)}
        onPointerLeave={() => {
          setPressed(false);
          setOpen(false);
        }}
      >
        {children}
      </span>
    </Tooltip>
  );
}

interface ActionProps extends Props {
  readonly onPress: () => void;
}

/** An action that is a word in a line, and says what it does. */
export function ExplainedAction({ by, onPress, children }: ActionProps): React.JSX.Element {
  return (
    <Explained by={by}>
      <button type="button" className="text-button" onClick={onPress}>
        {children}
      </button>
    </Explained>
  );
}

/** The words of a column or of a mark: they take the focus, so that the keyboard reaches their help. */
export function ExplainedWords({ by, children }: Props): React.JSX.Element {
  return (
    <Explained by={by}>
      <span tabIndex={0} className="explained-words">
        {children}
      </span>
    </Explained>
  );
}

function Help({ name }: { readonly name: HelpName }): React.JSX.Element {
  const { help, example, standard } = helpOf(name);
  return (
    <>
      {help}
      {example !== undefined && (
        <>
          {' '}
          <code>{example}</code>
        </>
      )}
      {standard !== undefined && <span className="standard"> {standard}</span>}
    </>
  );
}
