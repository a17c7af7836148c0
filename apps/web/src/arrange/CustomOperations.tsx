import {
  CUSTOM_NAME,
  findArrangement,
  printEffect,
  readEffect,
  withoutCustomOperation,
  type CustomOperation,
} from '@isomeros/core/arrangement';
import { indexModel, keyOf, type Entity, type Model } from '@isomeros/core/model';
import { Button } from 'antd';
import { useState } from 'react';
import { TextField } from '../app/parts/TextField.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { useDecide } from '../design/useDecide.js';
import { choicesMade } from '../design/designSlice.js';

interface Props {
  /** The name of the entity they are about. */
  readonly entity: string;
  /** Below its collection, or below its items. */
  readonly on: 'collection' | 'item';
}

const NONE: readonly CustomOperation[] = [];

/** The operations of one's own at a path: each a name, and in a line what it does. */
export function CustomOperations({ entity, on }: Props): React.JSX.Element | null {
  const choices = useAppSelector((state) => state.design.choices);
  const arrangement = useAppSelector((state) => state.design.arrangement);
  const model = useAppSelector((state) => state.design.derived?.model ?? null);
  const dispatch = useAppDispatch();
  const decide = useDecide();
  const found = model === null ? undefined : indexModel(model).entities.get(entity);
  if (model === null || found === undefined) return null;
  const all = findArrangement(choices, arrangement)?.customOperations ?? NONE;
  const isMeant = ({ entity: of, effect }: CustomOperation): boolean =>
    of === found.id && (effect.kind === 'query') === (on === 'collection');
  const write = (custom: CustomOperation): void => {
    decide('customOperations', { id: custom.id, operation: custom });
  };
  return (
    <>
      <h3 className="section-head">
        Custom operations
        <span className="end quiet">{on === 'collection' ? 'queries' : 'what it does, in a line'}</span>
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
          />
        ))}
        <Button onClick={() => write(newCustom(found, on, all))}>
          {on === 'collection' ? 'Add a query' : 'Add an action'}
        </Button>
      </div>
    </>
  );
}

interface RowProps {
  readonly custom: CustomOperation;
  readonly model: Model;
  readonly entity: string;
  readonly onWrite: (custom: CustomOperation) => void;
  readonly onRemove: () => void;
}

function CustomRow({ custom, model, entity, onWrite, onRemove }: RowProps): React.JSX.Element {
  const [wrong, setWrong] = useState<string | null>(null);
  const isQuery = custom.effect.kind === 'query';
  const rename = (name: string): void => {
    const isName = CUSTOM_NAME.test(name);
    setWrong(isName ? null : 'Expected a name in camelCase.');
    if (isName) onWrite({ ...custom, name });
  };
  const write = (text: string): void => {
    const read = readEffect(model, entity, text);
    const isSame = read.ok && (read.effect.kind === 'query') === isQuery;
    const expected = isQuery
      ? 'A collection takes queries, such as first 10 where … by … desc.'
      : 'An item takes actions, such as when … set …, or make ….';
    setWrong(read.ok ? (isSame ? null : expected) : `${read.message} (column ${read.column})`);
    if (read.ok && isSame) onWrite({ ...custom, effect: read.effect });
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
        label={`What ${custom.name} does`}
        value={printEffect(model, entity, custom.effect)}
        onCommit={write}
      />
      {wrong !== null && (
        <p className="wrong" role="alert">
          {wrong}
        </p>
      )}
    </div>
  );
}

/** A query, or an action that takes some attribute from the body, under a name nobody has. */
function newCustom(found: Entity, on: Props['on'], known: readonly CustomOperation[]): CustomOperation {
  const { id: entity, attributes } = found;
  const taken = new Set(known.map(({ id }) => id));
  let number = known.length + 1;
  while (taken.has(`custom-${number}`)) number++;
  const base = { id: `custom-${number}`, entity };
  const names = new Set(known.map(({ name }) => name));
  const unused = (word: string): string => (names.has(word) ? `${word}${number}` : word);
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
  const settable = attributes.find(
    ({ key, generated, touched, fixed, readOnly, lifeCycle }) =>
      key === null && !generated && !touched && !fixed && !readOnly && lifeCycle === null,
  );
  const values = settable === undefined ? [] : [{ member: settable.id, value: { kind: 'input' } as const }];
  return { ...base, name: unused('settle'), effect: { kind: 'assign', when: [], values } };
}
