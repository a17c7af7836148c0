import type { Attribute, AttributeType, Model } from '@isomeros/core/model';
import { indexModel, readJson } from '@isomeros/core/model';
import { parse, printType } from '@isomeros/core/notation';
import { Button, Checkbox, Select } from 'antd';
import { useState } from 'react';
import { writeAttribute, type SheetBlock } from './edits.js';
import { LifeCycleSheet } from './LifeCycleSheet.js';
import { toOneRoles } from './names.js';
import { TextField } from '../../app/parts/TextField.js';
import type { Edits } from './useEdits.js';

interface Props {
  readonly model: Model;
  readonly block: SheetBlock;
  readonly attribute: Attribute;
  readonly edits: Edits;
}

type Switch = 'required' | 'unique' | 'fixed' | 'readOnly' | 'writeOnly' | 'generated' | 'touched';

const SWITCHES: readonly (readonly [flag: Switch, label: string, title: string])[] = [
  ['required', 'required', 'Every record has a value'],
  ['unique', 'unique', 'No two records share a value'],
  ['fixed', 'fixed', 'Accepted on create, never changed'],
  ['readOnly', 'read-only', 'Returned, never accepted'],
  ['writeOnly', 'write-only', 'Accepted, never returned'],
  ['generated', 'generated', 'The server makes it'],
  ['touched', 'touched', 'Set at every change'],
];

type KeyKind = 'none' | 'key' | 'generated';

/** Everything the notation can say of one attribute. */
export function AttributeSheet({ model, block, attribute, edits }: Props): React.JSX.Element {
  const [wrong, setWrong] = useState<string | null>(null);
  const write = (change: Partial<Attribute>): void =>
    edits.apply(writeAttribute({ ...attribute, ...change }));
  const writeType = (text: string): void => {
    const type = readTypeText(model, text);
    setWrong(
      type === null ? `${text} is no type: text(1..80), integer, choice(a, b), list(0..3) of date, …` : null,
    );
    if (type !== null) write({ type });
  };
  return (
    <div className="attribute-sheet">
      <AttributeFields
        model={model}
        block={block}
        attribute={attribute}
        onRename={(name) => edits.rename(attribute.id, attribute.name, name)}
        onType={writeType}
        onWrite={write}
      />
      {wrong !== null && (
        <p className="wrong" role="alert">
          {wrong}
        </p>
      )}
      <div className="flags">
        {SWITCHES.map(([flag, label, title]) => (
          <Checkbox
            key={flag}
            checked={attribute[flag]}
            title={title}
            onChange={({ target }) => write({ [flag]: target.checked })}
          >
            {label}
          </Checkbox>
        ))}
      </div>
      {attribute.type.kind === 'choice' && block.kind === 'entity' && (
        <LifeCycleSheet attribute={attribute} options={attribute.type.options} onWrite={write} />
      )}
      <Button onClick={() => edits.remove(attribute.id)}>Remove {attribute.name}</Button>
    </div>
  );
}

interface FieldsProps {
  readonly model: Model;
  readonly block: SheetBlock;
  readonly attribute: Attribute;
  readonly onRename: (name: string) => void;
  readonly onType: (text: string) => void;
  readonly onWrite: (change: Partial<Attribute>) => void;
}

function AttributeFields(props: FieldsProps): React.JSX.Element {
  const { model, block, attribute, onRename, onType, onWrite } = props;
  const keyKind: KeyKind = attribute.key === null ? 'none' : attribute.key.generated ? 'generated' : 'key';
  const writeKey = (kind: KeyKind): void =>
    onWrite({
      key:
        kind === 'none' ? null : { generated: kind === 'generated', within: attribute.key?.within ?? null },
      generated: kind === 'generated',
    });
  return (
    <div className="fields">
      <label>name</label>
      <TextField
        mono
        label={`Name of ${attribute.name}`}
        value={attribute.name}
        onCommit={(name) => onRename(name.trim())}
      />
      <label>type</label>
      <TextField
        mono
        label={`Type of ${attribute.name}`}
        value={printType(attribute.type)}
        onCommit={onType}
      />
      {attribute.type.kind === 'text' && (
        <>
          <label>pattern</label>
          <TextField
            mono
            label={`Pattern of ${attribute.name}`}
            placeholder="none"
            value={attribute.type.pattern ?? ''}
            onCommit={(pattern) =>
              attribute.type.kind === 'text' &&
              onWrite({ type: { ...attribute.type, pattern: pattern === '' ? null : pattern } })
            }
          />
        </>
      )}
      <label>default</label>
      <TextField
        mono
        label={`Default of ${attribute.name}`}
        placeholder="none"
        value={literalText(attribute.defaultValue)}
        onCommit={(text) => onWrite({ defaultValue: literalOf(attribute.type, text) })}
      />
      <label>example</label>
      <TextField
        mono
        label={`Example of ${attribute.name}`}
        placeholder="none"
        value={literalText(attribute.example)}
        onCommit={(text) => onWrite({ example: literalOf(attribute.type, text) })}
      />
      <label>note</label>
      <TextField
        label={`Description of ${attribute.name}`}
        placeholder="none"
        value={attribute.description ?? ''}
        onCommit={(text) => onWrite({ description: text.trim() === '' ? null : text.trim() })}
      />
      {block.kind === 'entity' && (
        <>
          <label>key</label>
          <Select<KeyKind>
            aria-label={`Key of ${attribute.name}`}
            value={keyKind}
            onChange={writeKey}
            options={[
              { value: 'none', label: 'not the key' },
              { value: 'key', label: 'key, given by the client' },
              { value: 'generated', label: 'key, made by the server' },
            ]}
          />
          <Within model={model} entity={block.name} attribute={attribute} onWrite={onWrite} />
        </>
      )}
    </div>
  );
}

interface WithinProps {
  readonly model: Model;
  readonly entity: string;
  readonly attribute: Attribute;
  readonly onWrite: (change: Partial<Attribute>) => void;
}

/** Under which role a key, or a value, is unique; none is everywhere, or not at all. */
function Within({ model, entity, attribute, onWrite }: WithinProps): React.JSX.Element | null {
  const roles = toOneRoles(model, entity);
  if (roles.length === 0) return null;
  const { key } = attribute;
  return (
    <>
      <label>within</label>
      <Select
        allowClear
        aria-label={`Unique within, of ${attribute.name}`}
        placeholder={key === null ? 'not unique under a role' : 'unique everywhere'}
        value={key === null ? attribute.uniqueWithin : key.within}
        options={roles.map((value) => ({ value, label: value }))}
        onChange={(role: string | undefined) =>
          onWrite(key === null ? { uniqueWithin: role ?? null } : { key: { ...key, within: role ?? null } })
        }
      />
    </>
  );
}

const literalText = (value: Attribute['defaultValue']): string =>
  typeof value === 'string' ? value : value === null ? '' : JSON.stringify(value);

/** What was typed as a literal of the type; nothing typed is none. */
function literalOf(type: AttributeType, text: string): Attribute['defaultValue'] {
  if (text === '') return null;
  if ((type.kind === 'integer' || type.kind === 'decimal') && !Number.isNaN(Number(text)))
    return Number(text);
  if (type.kind === 'boolean' && (text === 'true' || text === 'false')) return text === 'true';
  if (type.kind !== 'json' && type.kind !== 'list') return text;
  const read = readJson(text);
  return read.ok ? read.value : text;
}

/** Reads a type as the notation writes it, with the values of the model known. */
function readTypeText(model: Model, text: string): AttributeType | null {
  const values = [...indexModel(model).values.keys()].map((name) => `value ${name}\n  it: text\n`).join('');
  const { model: read, diagnostics } = parse(`${values}entity ReadHere\n  it: ${text.replace(/\n/g, ' ')}\n`);
  const entity = read.declarations.find((declaration) => declaration.kind === 'entity');
  return diagnostics.length > 0 || entity?.kind !== 'entity' ? null : (entity.attributes[0]?.type ?? null);
}
