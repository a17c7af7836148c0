import {
  arrangementOf,
  CHOOSABLE,
  DESIGN_ONLY,
  readSettings,
  setting,
  SETTING_TITLES,
  type ChoosableSetting,
  type SettingLevel,
} from '@isomeros/core/arrangement';
import { Segmented } from 'antd';
import { useState } from 'react';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { choicesMade } from '../design/designSlice.js';
import { withoutSetting, withSetting, type ChoiceLevel } from './chosen.js';
import { LevelScale } from './LevelScale.js';
import { SettingControl } from './SettingControl.js';

const ARRANGEMENT = 'main';
const NAMES = Object.keys(CHOOSABLE) as ChoosableSetting[];

/** Every convention with its value, the level it was chosen at, and the way back to what it inherits. */
export function Conventions(): React.JSX.Element {
  const choices = useAppSelector((state) => state.design.choices);
  const dispatch = useAppDispatch();
  const [level, setLevel] = useState<ChoiceLevel>('arrangement');
  const [wrong, setWrong] = useState<{ readonly name: string; readonly message: string } | null>(null);
  const arrangement = arrangementOf(ARRANGEMENT, choices);
  const choose = (name: ChoosableSetting, value: string | number): void => {
    const at = DESIGN_ONLY.has(name) ? 'design' : level;
    const read = readSettings({ [name]: value }, at);
    if (read.ok) {
      setWrong(null);
      dispatch(choicesMade(withSetting(choices, at, ARRANGEMENT, name, value)));
    } else setWrong({ name, message: read.problems[0]?.message ?? '' });
  };
  return (
    <section className="panel" aria-label="Conventions">
      <header className="panel-head">
        <h2>Conventions</h2>
        <span className="end">
          <span className="quiet">set for the</span>
          <Segmented<ChoiceLevel>
            value={level}
            onChange={setLevel}
            options={[
              { value: 'design', label: 'design' },
              { value: 'arrangement', label: 'arrangement' },
            ]}
          />
        </span>
      </header>
      <ul className="panel-body conventions">
        {NAMES.map((name) => {
          const { value, level: from } = setting(arrangement, name);
          return (
            <li key={name}>
              <span className="title">{SETTING_TITLES[name]}</span>
              <SettingControl
                label={SETTING_TITLES[name]}
                domain={CHOOSABLE[name]}
                value={value}
                onChoose={(chosen) => choose(name, chosen)}
              />
              <Origin
                level={from}
                onReset={
                  from === 'default'
                    ? null
                    : () => dispatch(choicesMade(withoutSetting(choices, from, ARRANGEMENT, name)))
                }
                title={SETTING_TITLES[name]}
              />
              {wrong?.name === name && (
                <span className="wrong" role="alert">
                  {wrong.message}
                </span>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

interface OriginProps {
  readonly level: SettingLevel;
  readonly title: string;
  readonly onReset: (() => void) | null;
}

function Origin({ level, title, onReset }: OriginProps): React.JSX.Element {
  return (
    <span className="origin">
      <LevelScale level={level} />
      <span className={level === 'arrangement' ? 'strong' : 'quiet'}>{level}</span>
      {onReset !== null && (
        <button type="button" className="text-button" aria-label={`Reset ${title}`} onClick={onReset}>
          reset
        </button>
      )}
    </span>
  );
}
