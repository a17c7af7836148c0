import {
  indexModel,
  otherVerb,
  roleOf,
  withArticle,
  type Model,
  type OnRemove,
  type Owns,
  type PairsWith,
  type RefersTo,
  type Relationship,
} from '@isomeros/core/model';
import { VERBS } from '@isomeros/core/notation';
import { Button, Checkbox, Segmented, Select } from 'antd';
import { writeRelationship } from './edits.js';
import { TextField } from '../../app/parts/TextField.js';
import type { Edits } from './useEdits.js';

interface Props {
  readonly model: Model;
  readonly relationship: Relationship;
  readonly edits: Edits;
  readonly onClose: () => void;
}

const RULES: Readonly<Record<Relationship['kind'], readonly OnRemove[]>> = {
  owns: ['cascade', 'restrict'],
  refers: ['restrict', 'detach', 'cascade'],
  pairs: ['detach', 'restrict'],
};

const CARDINALITIES: Readonly<Record<Relationship['kind'], readonly string[]>> = {
  owns: ['many', 'one', 'optional'],
  refers: ['one', 'optional'],
  pairs: ['many'],
};

/** How two entities relate: which verb, how many, under which names, and what a removal does. */
export function RelationshipSheet({ model, relationship, edits, onClose }: Props): React.JSX.Element {
  const { from, to, kind } = relationship;
  const write = (next: Relationship): void => edits.apply(writeRelationship(next));
  const { values: valueNames, entities: entityNames } = indexModel(model);
  const values = optionsOf(valueNames.keys());
  const entities = optionsOf(entityNames.keys());
  return (
    <>
      <header className="sheet-title">
        <span className="strong">
          {from} and {to}
        </span>
        <button type="button" className="text-button" onClick={onClose} aria-label="Close the sheet">
          Close
        </button>
      </header>
      {kind !== 'pairs' && (
        <div className="sheet-line">
          <p>{question(relationship)}</p>
          <Segmented<'owns' | 'refers'>
            value={kind}
            onChange={(verb) => {
              if (verb !== kind) write(otherVerb(relationship));
            }}
            options={[
              { value: 'owns', label: 'No: it is owned' },
              { value: 'refers', label: 'Yes: it only refers' },
            ]}
          />
        </div>
      )}
      <RelationshipFields relationship={relationship} values={values} entities={entities} onWrite={write} />
      {relationship.kind === 'refers' && (
        <div className="flags">
          <Checkbox
            checked={relationship.fixed}
            onChange={({ target }) => write({ ...relationship, fixed: target.checked })}
          >
            fixed
          </Checkbox>
          <Checkbox
            checked={relationship.unique}
            onChange={({ target }) => write({ ...relationship, unique: target.checked })}
          >
            unique
          </Checkbox>
        </div>
      )}
      <div className="sheet-acts">
        <Button
          onClick={() => {
            edits.remove(relationship.id);
            onClose();
          }}
        >
          Remove relationship
        </Button>
      </div>
    </>
  );
}

const VERB_KINDS: readonly Relationship['kind'][] = ['owns', 'refers', 'pairs'];

const optionsOf = (names: Iterable<string>): { value: string; label: string }[] =>
  [...names].map((value) => ({ value, label: value }));

/** The same ends, roles and note with another verb. */
function withVerb(relationship: Relationship, kind: Relationship['kind']): Relationship {
  const { id, from, to, role, back, description, comments } = relationship;
  const shared = { id, from, to, role, back, description, comments, onRemove: null };
  switch (kind) {
    case 'owns':
      return { kind, cardinality: 'many', ...shared };
    case 'refers':
      return { kind, cardinality: 'optional', fixed: false, unique: false, ...shared };
    case 'pairs':
      return { kind, cardinality: 'many', carrying: null, ...shared };
  }
}

interface FieldsProps {
  readonly relationship: Relationship;
  readonly values: { value: string; label: string }[];
  readonly entities: { value: string; label: string }[];
  readonly onWrite: (next: Relationship) => void;
}

function RelationshipFields({ relationship, values, entities, onWrite }: FieldsProps): React.JSX.Element {
  const { kind } = relationship;
  return (
    <div className="fields">
      <label>each</label>
      <Select
        aria-label="From"
        showSearch
        value={relationship.from}
        options={entities}
        onChange={(from) => onWrite({ ...relationship, from })}
      />
      <label>verb</label>
      <Select<Relationship['kind']>
        aria-label="Verb"
        value={kind}
        options={VERB_KINDS.map((value) => ({ value, label: VERBS[value] }))}
        onChange={(verb) => onWrite(withVerb(relationship, verb))}
      />
      <label>cardinality</label>
      <Select
        aria-label="Cardinality"
        value={relationship.cardinality}
        options={CARDINALITIES[kind].map((value) => ({ value, label: value }))}
        onChange={(cardinality) => onWrite({ ...relationship, cardinality } as Relationship)}
      />
      <label>to</label>
      <Select
        aria-label="To"
        showSearch
        value={relationship.to}
        options={entities}
        onChange={(to) => onWrite({ ...relationship, to })}
      />
      <label>role</label>
      <TextField
        mono
        label="Role"
        placeholder={`${roleOf(relationship)}, derived`}
        value={relationship.role ?? ''}
        onCommit={(role) => onWrite({ ...relationship, role: role.trim() === '' ? null : role.trim() })}
      />
      <label>back as</label>
      <TextField
        mono
        label="Way back"
        placeholder="none"
        value={relationship.back ?? ''}
        onCommit={(back) => onWrite({ ...relationship, back: back.trim() === '' ? null : back.trim() })}
      />
      <label>on remove</label>
      <Select
        aria-label="On remove"
        value={relationship.onRemove ?? RULES[kind][0] ?? 'restrict'}
        options={RULES[kind].map((value) => ({ value, label: value }))}
        onChange={(rule) => onWrite({ ...relationship, onRemove: rule === RULES[kind][0] ? null : rule })}
      />
      {relationship.kind === 'pairs' && (
        <>
          <label>carrying</label>
          <Select
            aria-label="Carrying"
            allowClear
            placeholder="nothing"
            value={relationship.carrying}
            options={values}
            onChange={(carrying: string | undefined) =>
              onWrite({ ...relationship, carrying: carrying ?? null })
            }
          />
        </>
      )}
      <label>note</label>
      <TextField
        label="Description"
        placeholder="none"
        value={relationship.description ?? ''}
        onCommit={(text) =>
          onWrite({ ...relationship, description: text.trim() === '' ? null : text.trim() })
        }
      />
    </div>
  );
}

/** What decides between owning and referring. */
function question(relationship: Owns | RefersTo | PairsWith): string {
  const [child, parent] =
    relationship.kind === 'owns'
      ? [relationship.to, relationship.from]
      : [relationship.from, relationship.to];
  return `Can ${withArticle(child)} exist without its ${parent}?`;
}
