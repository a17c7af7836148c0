import { findArrangement, operationKey, saidOf, wrongInField, type SaidOf } from '@isomeros/core/arrangement';
import type { Operation } from '@isomeros/core/contract';
import { Checkbox } from 'antd';
import { useState } from 'react';
import { Explained } from '../app/help/Explained.js';
import { TextField } from '../app/parts/TextField.js';
import { useAppSelector } from '../app/store.js';
import { useDecide } from '../design/useDecide.js';
import { arrangementName } from '../design/viewSlice.js';

interface Props {
  readonly operation: Operation;
}

type Field = keyof SaidOf<'operation'>;

const NOTHING = {};

const ENDS = [
  { field: 'deprecated', title: 'Deprecated from', placeholder: '2027-01-31' },
  { field: 'sunset', title: 'stops answering on', placeholder: '2027-12-31' },
] as const;

/** What is said of an operation, written where it is read: its summary, a description, its end, whether it is published. */
export function OperationTexts({ operation }: Props): React.JSX.Element {
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const decide = useDecide();
  const [wrong, setWrong] = useState<string | null>(null);
  const subject = operationKey(operation.resource, operation.verb);
  const said = saidOf(findArrangement(choices, arrangement)?.documentation ?? NOTHING, 'operation', subject);
  const say = (field: Field, text: string): void => {
    const problem = text === '' ? null : wrongInField('operation', field, text);
    setWrong(problem === null ? null : `${field}: ${problem}`);
    if (problem === null)
      decide('documentation', { kind: 'operation', subject, field, text: text === '' ? null : text });
  };
  const isSaid = said.summary !== undefined;
  return (
    <div className="operation-texts">
      <Explained by="contract.texts">
        <span className={isSaid ? 'summary said' : 'summary'}>
          <TextField
            borderless
            label="Summary"
            value={said.summary ?? operation.summary}
            onCommit={(text) => say('summary', text.trim())}
          />
        </span>
      </Explained>
      <TextField
        wraps
        borderless
        label="Description"
        placeholder="What else is to be said of it, in CommonMark"
        value={said.description ?? ''}
        onCommit={(text) => say('description', text.trim())}
      />
      <div className="ends">
        {ENDS.map(({ field, title, placeholder }) => (
          <label key={field}>
            <span className="quiet">{title}</span>
            <TextField
              mono
              label={title}
              placeholder={placeholder}
              value={said[field] ?? ''}
              onCommit={(text) => say(field, text.trim())}
            />
          </label>
        ))}
        <Checkbox
          checked={said.unpublished === undefined}
          onChange={({ target }) => say('unpublished', target.checked ? '' : 'yes')}
        >
          in published documents
        </Checkbox>
      </div>
      {wrong !== null && (
        <p className="wrong" role="alert">
          {wrong}
        </p>
      )}
    </div>
  );
}
