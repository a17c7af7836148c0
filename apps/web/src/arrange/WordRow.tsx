import { findArrangement, PATH_WORD } from '@isomeros/core/arrangement';
import { useState } from 'react';
import { TextField } from '../app/parts/TextField.js';
import { useAppSelector } from '../app/store.js';
import { useDecide } from '../design/useDecide.js';
import { OriginMark } from './OriginMark.js';
import { arrangementName } from '../design/viewSlice.js';

interface Props {
  /** What the word names. */
  readonly subject: string;
  /** The derived one. */
  readonly word: string;
  readonly title: string;
}

/** A word that is derived from a name, or chosen here. */
export function WordRow({ subject, word, title }: Props): React.JSX.Element {
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const decide = useDecide();
  const [isWrong, setWrong] = useState(false);
  const words = findArrangement(choices, arrangement)?.words ?? {};
  const isChosen = Object.hasOwn(words, subject);
  const shown = isChosen ? (words[subject] ?? word) : word;
  const choose = (text: string): void => {
    setWrong(!PATH_WORD.test(text));
    if (PATH_WORD.test(text)) decide('words', { subject, word: text });
  };
  return (
    <ul className="setting-rows">
      <li className={isChosen ? 'set-here' : ''}>
        <span className="title">{title}</span>
        <TextField mono borderless label={title} value={shown} onCommit={(text) => choose(text.trim())} />
        <OriginMark
          title={title}
          level={isChosen ? 'arrangement' : 'default'}
          onReset={isChosen ? () => decide('words', { subject, word: null }) : null}
        />
        {isWrong && (
          <span className="wrong" role="alert">
            Expected letters, digits, dots, hyphens, underscores or tildes.
          </span>
        )}
      </li>
    </ul>
  );
}
