import { WHOLE_API } from '@isomeros/core/arrangement';
import { isOwnTag, type Tag } from '@isomeros/core/contract';
import { Button } from 'antd';
import type { TextsProps } from './textsProps.js';
import { CommonMarkField } from '../app/parts/CommonMarkField.js';
import { TextField } from '../app/parts/TextField.js';
import { tallyOf } from './sheetRows.js';
import { useSaid } from './useSaid.js';
import { WrongText } from './WrongText.js';

/** The tags in their order, each with its name and what is said of it. */
export function ApiTags({ contract, operations, onOperation }: TextsProps): React.JSX.Element {
  const { tags } = contract.documentation;
  const { say } = useSaid(contract, 'api', WHOLE_API);
  const move = (from: number, to: number): void => {
    const ids = tags.map(({ id }) => id);
    const [moved] = ids.splice(from, 1);
    if (moved === undefined) return;
    ids.splice(to, 0, moved);
    say('tagOrder', ids.join(', '));
  };
  return (
    <section aria-label="Tags">
      <header className="panel-head">
        <h3>Tags</h3>
        <span className="quiet">in their order; two of one name are one</span>
      </header>
      {tags.map((tag, index) => (
        <TagRow
          key={tag.id}
          contract={contract}
          tag={tag}
          operations={operations}
          onOperation={onOperation}
          onUp={index === 0 ? null : () => move(index, index - 1)}
          onDown={index === tags.length - 1 ? null : () => move(index, index + 1)}
        />
      ))}
    </section>
  );
}

interface TagProps extends TextsProps {
  readonly tag: Tag;
  readonly onUp: (() => void) | null;
  readonly onDown: (() => void) | null;
}

function TagRow({ contract, tag, operations, onOperation, onUp, onDown }: TagProps): React.JSX.Element {
  const { said, say, wrong } = useSaid(contract, 'tag', tag.id);
  const { documented, undocumented, unpublished } = tallyOf(
    contract.operations.filter(({ tags }) => tags.includes(tag.id)),
  );
  return (
    <div className="said-row tag-row">
      <span className="order">
        {[
          { mark: '↑', words: 'Earlier', onPress: onUp },
          { mark: '↓', words: 'Later', onPress: onDown },
        ].map(({ mark, words, onPress }) => (
          <Button
            key={mark}
            size="small"
            type="text"
            aria-label={`${words}: ${tag.title}`}
            disabled={onPress === null}
            onClick={() => onPress?.()}
          >
            {mark}
          </Button>
        ))}
      </span>
      <TextField
        label={`Name of the tag ${tag.title}`}
        value={tag.title}
        onCommit={(text) => say('title', text)}
      />
      <CommonMarkField
        label={`Description of the tag ${tag.title}`}
        placeholder={tag.description ?? 'Describe it'}
        value={said.description ?? ''}
        operations={operations}
        onOperation={onOperation}
        onCommit={(text) => say('description', text)}
      />
      <span className="quiet">
        {documented + undocumented + unpublished} operations{isOwnTag(tag.id) ? ', of your own' : ''}
      </span>
      <WrongText text={wrong} />
    </div>
  );
}
