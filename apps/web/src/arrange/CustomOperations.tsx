import {
  CUSTOM_NAME,
  findArrangement,
  placeOfEffect,
  printEffect,
  readEffect,
  withoutCustomOperation,
  type CustomOperation,
  type CustomPlace,
} from '@isomeros/core/arrangement';
import { findingKey, type Finding } from '@isomeros/core/contract';
import { indexModel, keyOf, withArticle, type Entity, type Model } from '@isomeros/core/model';
import { Button } from 'antd';
import { useState } from 'react';
import { TextField } from '../app/parts/TextField.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { useDecide } from '../design/useDecide.js';
import { FindingRow } from '../findings/FindingRow.js';
import { choicesMade } from '../design/documentSlice.js';
import { arrangementName } from '../design/viewSlice.js';
import { Explained } from '../app/help/Explained.js';

interface Props {
  /** The name of the entity they are about; `null` for what is about none. */
  readonly entity: string | null;
  readonly on: CustomPlace;
  readonly onStatement: (line: number) => void;
}

const NONE: readonly CustomOperation[] = [];
const NO_FINDINGS: readonly Finding[] = [];

/** The operations of one's own at a path: each a name, and in a line what it does. */
export function CustomOperations({ entity, on, onStatement }: Props): React.JSX.Element | null {
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const dispatch = useAppDispatch();
  const decide = useDecide();
  const [isAdding, setAdding] = useState(false);
  const found = model === null ? undefined : indexModel(model).entities.get(entity ?? '');
  if (model === null || (found === undefined) !== (entity === null)) return null;
  const all = findArrangement(choices, arrangement)?.customOperations ?? NONE;
  const isMeant = ({ entity: of, effect }: CustomOperation): boolean =>
    of === (found?.id ?? null) && placeOfEffect(effect) === on;
  const write = (custom: CustomOperation): void => {
    decide('customOperations', { id: custom.id, operation: custom });
  };
  return (
    <>
      <h3 className="section-head">
        Custom operations
        <span className="end quiet">{SAYS[on].about}</span>
      </h3>
      <div className="customOperations">
        {all.filter(isMeant).map((custom) => (
          <CustomRow
            key={custom.id}
            custom={custom}
            model={model}
            entity={entity}
            onWrite={write}
            onRemove={() => dispatch(choicesMade(withoutCustomOperation(choices, arrangement, custom.id)))}
            onStatement={onStatement}
          />
        ))}
        {isAdding ? (
          <NewCustomRow
            custom={newCustom(found ?? null, on, all)}
            model={model}
            entity={entity}
            onWrite={(custom) => {
              setAdding(false);
              write(custom);
            }}
            onRemove={() => setAdding(false)}
            onStatement={onStatement}
          />
        ) : (
          <Explained by="arrange.query">
            <Button onClick={() => setAdding(true)}>{`Add ${withArticle(SAYS[on].what)}`}</Button>
          </Explained>
        )}
      </div>
    </>
  );
}

interface RowProps {
  readonly custom: CustomOperation;
  readonly model: Model;
  readonly entity: string | null;
  readonly onWrite: (custom: CustomOperation) => void;
  readonly onRemove: () => void;
  readonly onStatement: (line: number) => void;
}

type Effect = CustomOperation['effect'];

/** What is said of operations by where they stand. */
const SAYS: Readonly<
  Record<CustomPlace, { readonly what: string; readonly about: string; readonly forms: readonly string[] }>
> = {
  entry: {
    what: 'fixed answer',
    about: 'the same for everybody',
    forms: ['answers { "status": "up" }'],
  },
  collection: {
    what: 'operation',
    about: 'queries, counts, on many, signing in',
    forms: [
      'first 10 where … by …',
      'one where … = input …',
      'count where …',
      'all where … set …',
      'ids do …',
      'verify … = input … answers token for 8 hours',
      'revoke token',
      'accepts text, required, secret, equals …',
      'caller',
    ],
  },
  item: {
    what: 'action',
    about: 'what it does, in a line',
    forms: [
      'when … set …',
      'make … set …',
      'set … = input … (… …, … …)',
      'set … accepts …: text',
      'count of …',
    ],
  },
};

/** Reads what an operation of that kind does; what is wrong with it, where it cannot be read. */
function readLine(
  { model, entity, custom }: Pick<RowProps, 'model' | 'entity' | 'custom'>,
  text: string,
): { readonly effect: Effect } | { readonly wrong: string } {
  const place = placeOfEffect(custom.effect);
  const read = readEffect(model, entity, text);
  if (!read.ok) return { wrong: `${read.message} (column ${read.column})` };
  return placeOfEffect(read.effect) === place
    ? { effect: read.effect }
    : { wrong: `Here a line is one of these: ${SAYS[place].forms.join('; ')}.` };
}

const WRONG_NAME = 'Expected a name in camelCase.';

function CustomRow(props: RowProps): React.JSX.Element {
  const { custom, model, entity, onWrite, onRemove, onStatement } = props;
  const [wrong, setWrong] = useState<string | null>(null);
  const findings = useAppSelector((state) => state.derived.review?.findings ?? NO_FINDINGS);
  const own = findings.filter(({ about }) => about === custom.id);
  const rename = (name: string): void => {
    const isName = CUSTOM_NAME.test(name);
    setWrong(isName ? null : WRONG_NAME);
    if (isName) onWrite({ ...custom, name });
  };
  const write = (text: string): void => {
    const read = readLine(props, text);
    setWrong('wrong' in read ? read.wrong : null);
    if ('effect' in read) onWrite({ ...custom, effect: read.effect });
  };
  return (
    <div className="custom">
      <TextField
        mono
        label={`Name of ${custom.name}`}
        value={custom.name}
        onCommit={(name) => rename(name.trim())}
      />
      <button type="button" className="text-button" aria-label={`Remove ${custom.name}`} onClick={onRemove}>
        Remove
      </button>
      <TextField
        mono
        wraps
        label={`What ${custom.name} does`}
        value={printEffect(model, entity, custom.effect)}
        onCommit={write}
      />
      <Wrong text={wrong} />
      {own.length > 0 && (
        <ul className="questions" aria-label={`Findings about ${custom.name}`}>
          {own.map((finding) => (
            <FindingRow key={findingKey(finding)} finding={finding} onStatement={onStatement} />
          ))}
        </ul>
      )}
    </div>
  );
}

/** One that is being added: it joins the contract once it has a name and says what it does. */
function NewCustomRow(props: RowProps): React.JSX.Element {
  const { custom, model, entity, onWrite, onRemove } = props;
  const [name, setName] = useState('');
  const [line, setLine] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const { what, forms } = SAYS[placeOfEffect(custom.effect)];
  const take = (newName: string, newLine: string): void => {
    setName(newName);
    setLine(newLine);
    const read = newLine === '' ? null : readLine(props, newLine);
    const isName = CUSTOM_NAME.test(newName);
    if (newName !== '' && !isName) setWrong(WRONG_NAME);
    else setWrong(read !== null && 'wrong' in read ? read.wrong : null);
    if (isName && read !== null && 'effect' in read)
      onWrite({ ...custom, name: newName, effect: read.effect });
  };
  return (
    <div className="custom">
      <TextField
        mono
        label={`Name of the new ${what}`}
        placeholder={custom.name}
        value={name}
        onCommit={(typed) => take(typed.trim(), line)}
      />
      <button type="button" className="text-button" onClick={onRemove}>
        Cancel
      </button>
      <TextField
        mono
        wraps
        label={`What the new ${what} does`}
        placeholder={printEffect(model, entity, custom.effect)}
        value={line}
        onCommit={(typed) => take(name, typed.trim())}
      />
      <Wrong text={wrong} />
      <ul className="forms" aria-label="What a line can be">
        {forms.map((form) => (
          <li key={form} className="mono">
            {form}
          </li>
        ))}
      </ul>
    </div>
  );
}

function Wrong({ text }: { readonly text: string | null }): React.JSX.Element | null {
  return text === null ? null : (
    <p className="wrong" role="alert">
      {text}
    </p>
  );
}

const UP: Effect = {
  kind: 'fixed',
  body: { kind: 'object', members: [{ name: 'status', value: { kind: 'literal', value: 'up' } }] },
};

/** A fixed answer, a query, or an action that takes some attribute from the body, under a name nobody has. */
function newCustom(
  found: Entity | null,
  on: CustomPlace,
  known: readonly CustomOperation[],
): CustomOperation {
  const taken = new Set(known.map(({ id }) => id));
  let number = known.length + 1;
  while (taken.has(`custom-${number}`)) number++;
  const id = `custom-${number}`;
  const names = new Set(known.map(({ name }) => name));
  const unused = (word: string): string => (names.has(word) ? `${word}${number}` : word);
  if (found === null) return { id, entity: null, name: unused('health'), effect: UP };
  const base = { id, entity: found.id };
  if (on === 'collection')
    return {
      ...base,
      name: unused('newest'),
      effect: {
        kind: 'query',
        filters: [],
        order: [{ member: keyOf(found).attribute.id, descending: true }],
        limit: 10,
      },
    };
  const settable = found.attributes.find(
    ({ key, generated, touched, fixed, readOnly, lifeCycle }) =>
      key === null && !generated && !touched && !fixed && !readOnly && lifeCycle === null,
  );
  const values = settable === undefined ? [] : [{ member: settable.id, value: { kind: 'input' } as const }];
  return { ...base, name: unused('settle'), effect: { kind: 'assign', when: [], values } };
}
