import {
  arrangementOf,
  CHOOSABLE,
  hasLevel,
  operationKey,
  readSettings,
  setting,
  SETTING_TITLES,
  type ChoiceLevel,
  type ChoosableSetting,
  type SettingLevel,
} from '@isomeros/core/arrangement';
import { useState } from 'react';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { choicePlace, withoutSetting, withSetting } from '../design/chosen.js';
import { choicesMade } from '../design/designSlice.js';
import { hasEffect } from './settingGroups.js';
import { OriginMark } from './OriginMark.js';
import { SettingControl } from './SettingControl.js';

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
  const { choices, arrangement } = useAppSelector((state) => state.design);
  const dispatch = useAppDispatch();
  const [wrong, setWrong] = useState<{ readonly name: string; readonly message: string } | null>(null);
  const of = arrangementOf(arrangement, choices);
  const at = resource === '' ? undefined : { resource, ...(verb === undefined ? {} : { verb }) };
  const operation = verb === undefined ? '' : operationKey(resource, verb);
  const levelOf = (name: ChoosableSetting): ChoiceLevel => (hasLevel(name, level) ? level : 'design');
  const choose = (name: ChoosableSetting, value: string | number): void => {
    const read = readSettings({ [name]: value }, levelOf(name));
    if (!read.ok) {
      setWrong({ name, message: read.problems[0]?.message ?? '' });
      return;
    }
    setWrong(null);
    const place = choicePlace(levelOf(name), resource, operation);
    dispatch(choicesMade(withSetting(choices, arrangement, place, name, value)));
  };
  const reset = (name: ChoosableSetting, from: SettingLevel): (() => void) | null => {
    if (from === 'default') return null;
    const place = choicePlace(from, resource, operation);
    return () => dispatch(choicesMade(withoutSetting(choices, arrangement, place, name)));
  };
  // What has no effect as things stand is left out, unless it was chosen just here.
  const shown = names.filter(
    (name) => hasEffect(of, name, at) || setting(of, name, at).level === levelOf(name),
  );
  return (
    <ul className="setting-rows">
      {shown.map((name) => {
        const { value, level: from } = setting(of, name, at);
        return (
          <li key={name} className={from === levelOf(name) ? 'set-here' : ''}>
            <span className="title">{SETTING_TITLES[name]}</span>
            <SettingControl
              label={SETTING_TITLES[name]}
              domain={CHOOSABLE[name]}
              value={value}
              onChoose={(chosen) => choose(name, chosen)}
            />
            <OriginMark title={SETTING_TITLES[name]} level={from} onReset={reset(name, from)} />
            {wrong?.name === name && (
              <span className="wrong" role="alert">
                {wrong.message}
              </span>
            )}
          </li>
        );
      })}
    </ul>
  );
}
