import type { Attribute, Condition, Transition } from '@isomeros/core/model';
import { parse, printCondition } from '@isomeros/core/notation';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { unusedName } from './edits.js';
import { TextField } from '../../app/parts/TextField.js';

interface Props {
  readonly attribute: Attribute;
  readonly options: readonly string[];
  readonly onWrite: (change: Partial<Attribute>) => void;
}

/** The transitions by which a choice moves. The first one makes the default its initial state. */
export function LifeCycleSheet({ attribute, options, onWrite }: Props): React.JSX.Element {
  const transitions = attribute.lifeCycle ?? [];
  const states = options.map((value) => ({ value, label: value }));
  const write = (lifeCycle: readonly Transition[]): void =>
    onWrite({
      lifeCycle: lifeCycle.length === 0 ? null : lifeCycle,
      defaultValue: attribute.defaultValue ?? options[0] ?? null,
    });
  const change = (index: number, part: Partial<Transition>): void =>
    write(transitions.map((transition, at) => (at === index ? { ...transition, ...part } : transition)));
  return (
    <div className="life-cycle">
      {transitions.map((transition, index) => (
        <TransitionRow
          key={transition.id}
          attribute={attribute}
          transition={transition}
          states={states}
          onChange={(part) => change(index, part)}
          onRemove={() => write(transitions.filter((_, at) => at !== index))}
        />
      ))}
      <Button onClick={() => write([...transitions, newTransition(attribute, transitions, options)])}>
        Add transition
      </Button>
    </div>
  );
}

function newTransition(
  attribute: Attribute,
  known: readonly Transition[],
  options: readonly string[],
): Transition {
  const name = unusedName('move', new Set(known.map((transition) => transition.name)));
  const [first = ''] = options;
  const to = options.at(-1) ?? first;
  return {
    kind: 'transition',
    id: `${attribute.id}/${name}`,
    name,
    from: [first],
    to,
    when: null,
    description: null,
    comments: [],
  };
}

interface RowProps {
  readonly attribute: Attribute;
  readonly transition: Transition;
  readonly states: { value: string; label: string }[];
  readonly onChange: (part: Partial<Transition>) => void;
  readonly onRemove: () => void;
}

function TransitionRow({ attribute, transition, states, onChange, onRemove }: RowProps): React.JSX.Element {
  const [wrong, setWrong] = useState<string | null>(null);
  const writeCondition = (text: string): void => {
    const condition = text.trim() === '' ? null : readCondition(attribute, text);
    setWrong(condition === undefined ? 'Expected comparisons such as departsAt > now and seats >= 1.' : null);
    if (condition !== undefined) onChange({ when: condition });
  };
  return (
    <div className="transition">
      <TextField
        mono
        label={`Name of transition ${transition.name}`}
        value={transition.name}
        onCommit={(name) => onChange({ name: name.trim() })}
      />
      <Select
        mode="multiple"
        aria-label={`${transition.name} leads from`}
        value={[...transition.from]}
        options={states}
        onChange={(from) => from.length > 0 && onChange({ from })}
      />
      <span>to</span>
      <Select
        aria-label={`${transition.name} leads to`}
        value={transition.to}
        options={states}
        onChange={(to) => onChange({ to })}
      />
      <span>when</span>
      <TextField
        mono
        label={`Condition of ${transition.name}`}
        placeholder="always"
        value={transition.when === null ? '' : printCondition(transition.when)}
        onCommit={writeCondition}
      />
      <button type="button" className="text-button" onClick={onRemove}>
        Remove
      </button>
      {wrong !== null && (
        <p className="wrong" role="alert">
          {wrong}
        </p>
      )}
    </div>
  );
}

/** Reads a condition as the notation writes it; `undefined` when it is none. */
function readCondition(attribute: Attribute, text: string): Condition | undefined {
  const line = text.replace(/\n/g, ' ');
  const names = [...new Set([...line.matchAll(/([a-z]\w*)\s*(?:=|!=|<|>)/g)].map(([, name]) => name ?? ''))];
  const attributes = names.filter((name) => name !== attribute.name).map((name) => `  ${name}: instant\n`);
  const { model } = parse(
    `entity ReadHere\n${attributes.join('')}  it: choice(a, b), default a\n    go: a -> b when ${line}\n`,
  );
  const entity = model.declarations[0];
  const transition = entity?.kind === 'entity' ? entity.attributes.at(-1)?.lifeCycle?.[0] : undefined;
  return transition?.when ?? undefined;
}
