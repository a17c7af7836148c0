import { indexModel, type Attribute, type Model } from '@isomeros/core/model';
import { printAttribute, VERBS } from '@isomeros/core/notation';
import { Button, Popconfirm } from 'antd';
import { AttributeSheet } from './AttributeSheet.js';
import { unusedName, writeBlock, type SheetBlock } from './edits.js';
import { TextField } from '../../app/parts/TextField.js';
import { UniqueRules } from './UniqueRules.js';
import type { Edits } from './useEdits.js';

interface Props {
  readonly model: Model;
  readonly block: SheetBlock;
  readonly edits: Edits;
  /** The attribute that is open, by its identity. */
  readonly open: string | null;
  readonly onOpen: (attribute: string | null) => void;
  readonly onSelect: (id: string) => void;
  readonly onClose: () => void;
}

/** An entity or a value: its name, its attributes, its relationships. */
export function BlockSheet({
  model,
  block,
  edits,
  open,
  onOpen,
  onSelect,
  onClose,
}: Props): React.JSX.Element {
  const remove = (): void => {
    edits.remove(block.id);
    onClose();
  };
  return (
    <>
      <header className="sheet-title">
        <span className="quiet">{block.kind}</span>
        <TextField
          label="Name"
          value={block.name}
          onCommit={(name) => edits.rename(block.id, block.name, name.trim())}
        />
        <button type="button" className="text-button" onClick={onClose} aria-label="Close the sheet">
          Close
        </button>
      </header>
      <div className="sheet-line">
        <TextField
          label="Description"
          placeholder="What it is, in a few words"
          value={block.description ?? ''}
          onCommit={(description) =>
            edits.apply(
              writeBlock({ ...block, description: description.trim() === '' ? null : description.trim() }),
            )
          }
        />
      </div>
      <ul className="sheet-attributes">
        {block.attributes.map((attribute) => (
          <li key={attribute.id}>
            <AttributeRow
              attribute={attribute}
              open={open === attribute.id}
              onToggle={() => onOpen(open === attribute.id ? null : attribute.id)}
            />
            {open === attribute.id && (
              <AttributeSheet model={model} block={block} attribute={attribute} edits={edits} />
            )}
          </li>
        ))}
      </ul>
      {block.kind === 'entity' && <UniqueRules model={model} entity={block} edits={edits} />}
      <div className="sheet-acts">
        <Button
          onClick={() =>
            edits.insert(block.id, [
              `${unusedName('attribute', new Set(block.attributes.map(({ name }) => name)))}: text`,
            ])
          }
        >
          Add attribute
        </Button>
        <Popconfirm
          title={`Remove ${block.name}?`}
          description="Sentences that name it will have errors."
          okText="Remove"
          cancelText="Keep"
          onConfirm={remove}
        >
          <Button>Remove {block.kind}</Button>
        </Popconfirm>
      </div>
      <Sentences model={model} block={block} onSelect={onSelect} />
    </>
  );
}

/** The sentences that name a block; each leads to its own sheet. */
function Sentences({
  model,
  block,
  onSelect,
}: Pick<Props, 'model' | 'block' | 'onSelect'>): React.JSX.Element | null {
  const relationships = indexModel(model).relationships.filter(
    ({ from, to }) => from === block.name || to === block.name,
  );
  if (relationships.length === 0) return null;
  return (
    <ul className="sheet-relationships">
      {relationships.map(({ id, kind, from, to, cardinality, role }) => (
        <li key={id}>
          <button type="button" className="text-button" onClick={() => onSelect(id)}>
            {from} {VERBS[kind]} {cardinality} {to}
            {role === null ? '' : ` as ${role}`}
          </button>
        </li>
      ))}
    </ul>
  );
}

interface RowProps {
  readonly attribute: Attribute;
  readonly open: boolean;
  readonly onToggle: () => void;
}

function AttributeRow({ attribute, open, onToggle }: RowProps): React.JSX.Element {
  const [, says = ''] = printAttribute({ ...attribute, description: null }).split(/: (.*)/s);
  return (
    <button
      type="button"
      className={open ? 'attribute-row open' : 'attribute-row'}
      aria-expanded={open}
      onClick={onToggle}
    >
      <span className="mono">{attribute.name}</span>
      <span className="says">
        {says}
        {attribute.lifeCycle !== null && `, ${attribute.lifeCycle.length} transitions`}
      </span>
    </button>
  );
}
