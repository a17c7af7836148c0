import { indexModel, roleOf, type Model } from '@isomeros/core/model';
import { append } from '@isomeros/core/notation';
import { useState, type ReactNode } from 'react';
import { useAppDispatch, useAppStore } from '../app/store.js';
import { textEdited } from '../design/designSlice.js';
import { ModelMap } from './map/ModelMap.js';
import { unusedName } from './sheets/edits.js';
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
  const store = useAppStore();
  const dispatch = useAppDispatch();
  const add = (statement: string, id: string): void => {
    dispatch(textEdited(append(store.getState().design.text, statement)));
    onSelect(id);
    setSheet(true);
  };
  const entities = model.declarations
    .filter((declaration) => declaration.kind === 'entity')
    .map(({ name }) => name);
  const addEntity = (): void => {
    const name = unusedName('NewEntity', blockNames(model));
    add(`entity ${name}`, name);
  };
  const addValue = (): void => {
    const name = unusedName('NewValue', blockNames(model));
    add(`value ${name}\n  part: text`, name);
  };
  const addRelationship = (): void => {
    const chosen = entities.find((name) => name === selected) ?? entities[0] ?? '';
    const other = entities.find((name) => name !== chosen) ?? chosen;
    const role = unusedName(`related${other}`, memberNames(model, chosen));
    add(`each ${chosen} refers to optional ${other} as ${role}`, `${chosen}>${other}:${role}`);
  };
  return (
    <section className="panel" aria-label="Map of the model">
      <header className="panel-head">
        {viewSwitch}
        <span className="quiet">
          <kbd>Enter</kbd> opens the sheet
        </span>
        <span className="end">
          <button type="button" className="text-button" onClick={addEntity}>
            Add entity
          </button>
          <button type="button" className="text-button" onClick={addValue}>
            Add value
          </button>
          <button
            type="button"
            className="text-button"
            onClick={addRelationship}
            disabled={entities.length === 0}
          >
            Add relationship
          </button>
        </span>
      </header>
      <div className="panel-body map-body">
        <ModelMap model={model} selected={selected} onSelect={onSelect} onOpen={() => setSheet(true)} />
        {sheet && selected !== null && (
          <Sheet id={selected} onClose={() => setSheet(false)} onSelect={onSelect} />
        )}
      </div>
    </section>
  );
}

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
