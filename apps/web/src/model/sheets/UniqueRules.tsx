import type { Entity, Model, UniqueRule } from '@isomeros/core/model';
import { Button, Select } from 'antd';
import { printUnique, writeUnique } from './edits.js';
import { toOneRoles } from './names.js';
import type { Edits } from './useEdits.js';

interface Props {
  readonly model: Model;
  readonly entity: Entity;
  readonly edits: Edits;
}

/** Combinations of attributes and to-one roles that no two records share. */
export function UniqueRules({ model, entity, edits }: Props): React.JSX.Element | null {
  const names = [...entity.attributes.map(({ name }) => name), ...toOneRoles(model, entity.name)];
  const [first, second] = names;
  if (first === undefined || second === undefined) return null;
  const write = (rule: UniqueRule, chosen: readonly string[]): void => {
    if (chosen.length === 0) edits.remove(rule.id);
    else edits.apply(writeUnique({ ...rule, names: chosen }));
  };
  return (
    <div className="fields">
      {entity.uniques.map((rule, index) => [
        <label key={`label ${rule.id}`}>{index === 0 ? 'unique' : ''}</label>,
        <Select
          key={rule.id}
          mode="multiple"
          aria-label={`Unique combination ${index + 1}`}
          value={[...rule.names]}
          options={names.map((value) => ({ value, label: value }))}
          onChange={(chosen: string[]) => write(rule, chosen)}
        />,
      ])}
      <label>{entity.uniques.length === 0 ? 'unique' : ''}</label>
      <Button onClick={() => edits.insert(entity.id, [printUnique([first, second])])}>
        Add a unique combination
      </Button>
    </div>
  );
}
