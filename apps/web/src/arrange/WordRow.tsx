import { findArrangement, PATH_WORD } from '@isomeros/core/arrangement';
import { useState } from 'react';
import { TextField } from '../app/parts/TextField.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { withWord } from '../design/chosen.js';
import { choicesMade } from '../design/designSlice.js';
import { OriginMark } from './OriginMark.js';

interface Props {
  /** What the word names. */
  readonly subject: string;
  readonly path: string;
}

/** The word a path adds to the one above: derived from a name, or chosen here. */
export function WordRow({ subject, path }: Props): React.JSX.Element {
  const { choices, arrangement } = useAppSelector((state) => state.design);
  const dispatch = useAppDispatch();
  const [isWrong, setWrong] = useState(false);
  const words = findArrangement(choices, arrangement)?.words ?? {};
  const isChosen = Object.hasOwn(words, subject);
  const shown = path.split('/').findLast((part) => part !== '' && !part.startsWith('{')) ?? '';
  const choose = (word: string): void => {
    setWrong(!PATH_WORD.test(word));
    if (PATH_WORD.test(word)) dispatch(choicesMade(withWord(choices, arrangement, subject, word)));
  };
  return (
    <ul className="setting-rows">
      <li className={isChosen ? 'set-here' : ''}>
        <span className="title">Path word</span>
        <TextField mono borderless label="Path word" value={shown} onCommit={(word) => choose(word.trim())} />
        <OriginMark
          title="Path word"
          level={isChosen ? 'arrangement' : 'default'}
          onReset={
            isChosen ? () => dispatch(choicesMade(withWord(choices, arrangement, subject, null))) : null
          }
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
