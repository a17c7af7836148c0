import {
  arrangementOf,
  hasEffect,
  hasLevel,
  operationKey,
  setting,
  type ChoiceLevel,
  type ChoosableSetting,
} from '@isomeros/core/arrangement';
import { useMemo } from 'react';
import { useAppSelector } from '../app/store.js';
import { SettingRow } from './SettingRow.js';
import { arrangementName } from '../design/viewSlice.js';

interface Props {
  /** Settings are chosen for this level, or for the design where they have no other. */
  readonly level: ChoiceLevel;
  /** The resource and verb they are for, where they are for one. */
  readonly resource?: string;
  readonly verb?: string;
  readonly names: readonly ChoosableSetting[];
}

/** Settings with their values, the level each comes from, and the way back to what it inherits. */
export function SettingRows({ level, resource = '', verb, names }: Props): React.JSX.Element {
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const of = useMemo(() => arrangementOf(arrangement, choices), [arrangement, choices]);
  const at = resource === '' ? undefined : { resource, ...(verb === undefined ? {} : { verb }) };
  const levelOf = (name: ChoosableSetting): ChoiceLevel => (hasLevel(name, level) ? level : 'design');
  // What has no effect as things stand is left out, unless it was chosen just here.
  const shown = names.filter(
    (name) => hasEffect(of, name, at) || setting(of, name, at).level === levelOf(name),
  );
  return (
    <ul className="setting-rows">
      {shown.map((name) => {
        const { value, level: from } = setting(of, name, at);
        return (
          <SettingRow
            key={name}
            name={name}
            value={value}
            from={from}
            level={levelOf(name)}
            resource={resource}
            operation={verb === undefined ? '' : operationKey(resource, verb)}
          />
        );
      })}
    </ul>
  );
}
