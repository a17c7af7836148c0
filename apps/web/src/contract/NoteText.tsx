import type { Contract, NoteKind } from '@isomeros/core/contract';
import { useState } from 'react';
import { TextField } from '../app/parts/TextField.js';
import { useSaid } from './useSaid.js';

interface Props {
  readonly contract: Contract;
  readonly kind: Exclude<NoteKind, 'constraint'>;
  readonly subject: string;
  /** What the note is on, as it is called. */
  readonly on: string;
  /** What the model says, or what is derived; empty where neither says anything. */
  readonly usual: string;
}

/** A note where it is read: pressed, it is written. What is said here stands upright, all else leans. */
export function NoteText({ contract, kind, subject, on, usual }: Props): React.JSX.Element {
  const { said, say, wrong } = useSaid(contract, kind, subject);
  const [isWritten, setWritten] = useState(false);
  const note = said.description ?? '';
  const text = note === '' ? usual : note;
  return (
    <>
      {isWritten ? (
        <span
          className="note-written"
          onClick={(event) => event.stopPropagation()}
          onKeyDown={(event) => {
            if (event.key === 'Escape') setWritten(false);
          }}
          onBlur={() => setWritten(false)}
        >
          <TextField
            wraps
            autoFocus
            label={`Note on ${on}`}
            placeholder={usual === '' ? 'What is to be known of it' : usual}
            value={note}
            onCommit={(text) => {
              say('description', text);
              setWritten(false);
            }}
          />
        </span>
      ) : (
        <button
          type="button"
          className={`plain-button note ${note === '' ? 'usual' : ''} ${text === '' ? 'none' : ''}`}
          aria-label={text === '' ? `add a note on ${on}` : `Note on ${on}: ${text}`}
          onClick={(event) => {
            event.stopPropagation();
            setWritten(true);
          }}
        >
          {text === '' ? 'add a note' : text}
        </button>
      )}
      {wrong !== null && (
        <span className="wrong" role="alert">
          {wrong}
        </span>
      )}
    </>
  );
}
