import { indexModel, roleOf, type Model } from '@isomeros/core/model';
import { append } from '@isomeros/core/notation';
import { useState, type ReactNode } from 'react';
import { useAppDispatch, useAppStore } from '../app/store.js';
import { textEdited } from '../design/documentSlice.js';
import { Explained } from '../app/help/Explained.js';
import { ModelMap } from './map/ModelMap.js';
import { NewStatement, type Addition } from './NewStatement.js';
import { Sheet } from './sheets/Sheet.js';

interface Props {
  /** The switch between map and paths. */
  readonly viewSwitch: ReactNode;
  readonly model: Model;
  readonly selected: string | null;
  readonly onSelect: (id: string) => void;
}

/** The map of the model, and the sheet of what is selected on it. */
export function MapPanel({ viewSwitch, model, selected, onSelect }: Props): React.JSX.Element {
  const [sheet, setSheet] = useState(false);
  const [adding, setAdding] = useState<AdditionName | null>(null);
  const store = useAppStore();
  const dispatch = useAppDispatch();
  const add = (statement: string, id: string): void => {
    dispatch(textEdited(append(store.getState().document.text, statement)));
    onSelect(id);
    setSheet(true);
  };
  const entities = model.declarations
    .filter((declaration) => declaration.kind === 'entity')
    .map(({ name }) => name);
  const chosen = entities.find((name) => name === selected) ?? entities[0] ?? '';
  const other = entities.find((name) => name !== chosen) ?? chosen;
  const additions: Readonly<Record<AdditionName, Addition>> = {
    entity: {
      before: 'entity',
      example: 'Route',
      pattern: BLOCK_NAME,
      taken: blockNames(model),
      statement: (name) => [`entity ${name}`, name],
    },
    value: {
      before: 'value',
      example: 'Position',
      pattern: BLOCK_NAME,
      taken: blockNames(model),
      statement: (name) => [`value ${name}\n  part: text`, name],
    },
    relationship: {
      before: `each ${chosen} refers to optional ${other} as`,
      example: other.charAt(0).toLowerCase() + other.slice(1),
      pattern: MEMBER_NAME,
      taken: memberNames(model, chosen),
      statement: (role) => [
        `each ${chosen} refers to optional ${other} as ${role}`,
        `${chosen}>${other}:${role}`,
      ],
    },
  };
  const addition = adding === null ? null : additions[adding];
  return (
    <section className="panel" aria-label="Map of the model">
      <header className="panel-head">
        {viewSwitch}
        <span className="quiet">
          <kbd>Enter</kbd> opens the sheet
        </span>
        <span className="end">
          {ADDITIONS.map((what) => (
            <Explained key={what} by={`model.${what}`}>
              <button
                type="button"
                className="text-button"
                disabled={what === 'relationship' && entities.length === 0}
                onClick={() => setAdding(what)}
              >
                Add {what}
              </button>
            </Explained>
          ))}
        </span>
      </header>
      {addition !== null && (
        <NewStatement
          key={adding}
          addition={addition}
          onName={(name) => {
            setAdding(null);
            add(...addition.statement(name));
          }}
          onLeave={() => setAdding(null)}
        />
      )}
      <div className="panel-body map-body">
        <ModelMap model={model} selected={selected} onSelect={onSelect} onOpen={() => setSheet(true)} />
        {sheet && selected !== null && (
          <Sheet id={selected} onClose={() => setSheet(false)} onSelect={onSelect} />
        )}
      </div>
    </section>
  );
}

const ADDITIONS = ['entity', 'value', 'relationship'] as const;
type AdditionName = (typeof ADDITIONS)[number];

const BLOCK_NAME = /^[A-Z][A-Za-z0-9]*$/;
const MEMBER_NAME = /^[a-z][A-Za-z0-9]*$/;

const blockNames = (model: Model): ReadonlySet<string> =>
  new Set(model.declarations.flatMap((declaration) => ('name' in declaration ? [declaration.name] : [])));

/** What attributes and roles of an entity are called already. */
function memberNames(model: Model, entity: string): ReadonlySet<string> {
  const attributes = indexModel(model).entities.get(entity)?.attributes ?? [];
  const roles = indexModel(model)
    .relationships.filter(({ from }) => from === entity)
    .map(roleOf);
  return new Set([...attributes.map(({ name }) => name), ...roles]);
}
