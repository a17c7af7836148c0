import { operationKey, type SaidOf } from '@isomeros/core/arrangement';
import { ownTag, type Contract, type Operation } from '@isomeros/core/contract';
import { Checkbox, Select } from 'antd';
import { useMemo } from 'react';
import { Explained } from '../app/help/Explained.js';
import { CommonMarkField } from '../app/parts/CommonMarkField.js';
import { TextField } from '../app/parts/TextField.js';
import { useSaid } from './useSaid.js';

interface Props {
  readonly contract: Contract;
  readonly operation: Operation;
  readonly onOperation: (operation: string) => void;
}

type Field = keyof SaidOf<'operation'>;

const ENDS = [
  { field: 'deprecated', title: 'Deprecated from', placeholder: '2027-01-31' },
  { field: 'sunset', title: 'stops answering on', placeholder: '2027-12-31' },
] as const;

/** What is said of an operation, written where it is read. */
export function OperationTexts({ contract, operation, onOperation }: Props): React.JSX.Element {
  const subject = operationKey(operation.resource, operation.verb);
  const { said, say, wrong } = useSaid(contract, 'operation', subject);
  const operations = useMemo(() => new Set(contract.operations.map(({ id }) => id)), [contract]);
  const isEnding = said.deprecated !== undefined || said.sunset !== undefined;
  return (
    <div className="operation-texts">
      <div className="summary-line">
        <Explained by="contract.texts">
          <span className={said.summary === undefined ? 'summary' : 'summary said'}>
            <TextField
              borderless
              label="Summary"
              value={said.summary ?? operation.summary}
              onCommit={(text) => say('summary', text)}
            />
          </span>
        </Explained>
        {said.summary === undefined ? (
          <span className="quiet">derived</span>
        ) : (
          <button type="button" className="text-button" onClick={() => say('summary', '')}>
            As derived
          </button>
        )}
      </div>
      <CommonMarkField
        label="Description"
        placeholder="Describe it, in CommonMark; [ links another operation"
        value={said.description ?? ''}
        operations={operations}
        onOperation={onOperation}
        onCommit={(text) => say('description', text)}
      />
      <div className="ends">
        <Tags contract={contract} operation={operation} onTags={(tags) => say('tags', tags)} />
        {ENDS.map(({ field, title, placeholder }) => (
          <label key={field}>
            <span className="quiet">{title}</span>
            <TextField
              mono
              label={title}
              placeholder={placeholder}
              value={said[field] ?? ''}
              onCommit={(text) => say(field, text)}
            />
          </label>
        ))}
        <Checkbox
          checked={said.unpublished === undefined}
          onChange={({ target }) => say('unpublished', target.checked ? '' : 'yes')}
        >
          in published documents
        </Checkbox>
        <label>
          <span className="quiet">More at</span>
          <TextField
            borderless
            label="Address of more"
            placeholder="https://…"
            value={said.externalUrl ?? ''}
            onCommit={(text) => say('externalUrl', text)}
          />
        </label>
        {said.externalUrl !== undefined && (
          <label>
            <span className="quiet">called</span>
            <TextField
              borderless
              label="What more is called"
              placeholder="its address"
              value={said.externalText ?? ''}
              onCommit={(text) => say('externalText', text)}
            />
          </label>
        )}
      </div>
      {isEnding && <Ending contract={contract} operation={operation} said={said} onSay={say} />}
      {wrong !== null && (
        <p className="wrong" role="alert">
          {wrong}
        </p>
      )}
    </div>
  );
}

interface TagsProps {
  readonly contract: Contract;
  readonly operation: Operation;
  readonly onTags: (tags: string) => void;
}

/** The tags of an operation: those there are, or a new one by its name. None is the derived one again. */
function Tags({ contract, operation, onTags }: TagsProps): React.JSX.Element {
  const { tags } = contract.documentation;
  const byTitle = new Map(tags.map(({ id, title }) => [title, id]));
  const known = new Set(tags.map(({ id }) => id));
  return (
    <label>
      <span className="quiet">Tags</span>
      <Select
        mode="tags"
        size="small"
        aria-label="Tags"
        value={[...operation.tags]}
        options={tags.map(({ id, title }) => ({ value: id, label: title }))}
        showSearch={{ optionFilterProp: 'label' }}
        tokenSeparators={[',']}
        onChange={(chosen: readonly string[]) =>
          onTags(
            chosen
              .map((one) => (known.has(one) ? one : (byTitle.get(one.trim()) ?? ownTag(one.trim()))))
              .join(', '),
          )
        }
      />
    </label>
  );
}

interface EndingProps {
  readonly contract: Contract;
  readonly operation: Operation;
  readonly said: SaidOf<'operation'>;
  readonly onSay: (field: Field, text: string) => void;
}

/** What is to be used in the place of an operation that ends, and what its answers say. */
function Ending({ contract, operation, said, onSay }: EndingProps): React.JSX.Element {
  const options = contract.operations
    .filter(({ id }) => id !== operation.id)
    .map(({ id, resource, verb }) => ({ value: operationKey(resource, verb), label: id }));
  return (
    <div className="ends">
      <label>
        <span className="quiet">use in its place</span>
        <Select
          size="small"
          showSearch={{ optionFilterProp: 'label' }}
          allowClear
          aria-label="To be used in its place"
          placeholder="nothing"
          style={{ width: 190 }}
          value={said.successor ?? null}
          options={options}
          onChange={(key: string | undefined) => onSay('successor', key ?? '')}
        />
      </label>
      <span className="quiet mono answers-carry">
        {[
          ...(said.deprecated === undefined ? [] : [`Deprecation: @${Date.parse(said.deprecated) / 1_000}`]),
          ...(said.sunset === undefined ? [] : [`Sunset: ${new Date(said.sunset).toUTCString()}`]),
        ].join('  ')}
      </span>
    </div>
  );
}
