import { LONGEST_EXAMPLE_BODY, type NamedExample } from '@isomeros/core/arrangement';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { indentJson } from '../app/parts/json.js';

interface Props {
  readonly example: NamedExample;
  readonly onTake: (example: NamedExample) => void;
  readonly onLeave: () => void;
}

/** What an example sends, to be written: its query and its body. What it is answered follows. */
export function ExampleBody({ example, onTake, onLeave }: Props): React.JSX.Element {
  const [query, setQuery] = useState(example.query);
  const [body, setBody] = useState(example.body === null ? '' : indentJson(example.body));
  const take = (): void => onTake({ ...example, query: query.trim(), body: body === '' ? null : body });
  return (
    <form
      className="example-written"
      aria-label={`The example ${example.name}`}
      onSubmit={(event) => {
        event.preventDefault();
        take();
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape') {
          event.stopPropagation();
          onLeave();
        } else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
          event.preventDefault();
          take();
        }
      }}
    >
      <label>
        <span className="quiet">Query</span>
        <Input
          className="mono"
          placeholder="status=planned&size=5"
          value={query}
          onChange={({ target }) => setQuery(target.value)}
        />
      </label>
      <label>
        <span className="quiet">Body</span>
        <Input.TextArea
          autoFocus
          className="mono"
          autoSize={{ minRows: 4, maxRows: 16 }}
          maxLength={LONGEST_EXAMPLE_BODY}
          value={body}
          onChange={({ target }) => setBody(target.value)}
        />
      </label>
      <p>
        <Button htmlType="submit" size="small">
          Take it
        </Button>
        <Button type="text" size="small" onClick={onLeave}>
          Leave it as it was
        </Button>
      </p>
    </form>
  );
}
