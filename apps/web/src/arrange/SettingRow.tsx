import {
  readSettings,
  rowOf,
  withSetting,
  type ChoiceLevel,
  type ChoicePlace,
  type ChoosableSetting,
  type SettingLevel,
  type SettingValue,
} from '@isomeros/core/arrangement';
import { Tooltip } from 'antd';
import { memo, useCallback, useRef, useState } from 'react';
import { useChoose } from '../design/useChoose.js';
import { OriginMark } from './OriginMark.js';
import { SettingControl } from './SettingControl.js';

/** What lies below the help can be pressed through it. */
const UNTOUCHED = { root: { pointerEvents: 'none' } } as const;

/** The place at which a setting of a level is chosen. */
function choicePlace(level: ChoiceLevel, resource: string, operation: string): ChoicePlace {
  switch (level) {
    case 'design':
    case 'arrangement':
      return { level };
    case 'resource':
      return { level, id: resource };
    case 'operation':
      return { level, id: operation };
  }
}

interface Props {
  readonly name: ChoosableSetting;
  readonly value: SettingValue;
  /** The level the value comes from, and the one that another would be chosen for. */
  readonly from: SettingLevel;
  readonly level: ChoiceLevel;
  readonly resource: string;
  /** The key of the operation it is for; empty where it is for none. */
  readonly operation: string;
}

/** One setting. Drawn again only where something of its own changes: there are many, and each change touches one. */
export const SettingRow = memo(function SettingRow(props: Props): React.JSX.Element {
  const { name, value, from, level, resource, operation } = props;
  const row = rowOf(name);
  const { title } = row;
  const decide = useChoose();
  const [isFocused, setFocused] = useState(false);
  // Whoever points at it sees the help by pointing; it would cover what can be chosen.
  const isPressed = useRef(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const choose = useCallback(
    (chosen: SettingValue): void => {
      const read = readSettings({ [name]: chosen }, level);
      setWrong(read.ok ? null : (read.problems[0]?.message ?? ''));
      if (!read.ok) return;
      const place = choicePlace(level, resource, operation);
      decide((choices, arrangement) => withSetting(choices, arrangement, place, { name, value: chosen }));
    },
    [name, level, resource, operation, decide],
  );
  const reset = (): void => {
    if (from === 'default') return;
    const place = choicePlace(from, resource, operation);
    decide((choices, arrangement) => withSetting(choices, arrangement, place, { name, value: null }));
  };
  return (
    <li
      className={from === level ? 'set-here' : ''}
      aria-description={row.help}
      onPointerDown={() => {
        isPressed.current = true;
        setFocused(false);
      }}
      onFocus={() => setFocused(!isPressed.current)}
      onBlur={() => {
        isPressed.current = false;
        setFocused(false);
      }}
    >
      <Tooltip title={row.help} placement="topLeft" styles={UNTOUCHED} {...(isFocused ? { open: true } : {})}>
        <span className="title">{title}</span>
      </Tooltip>
      <SettingControl label={title} domain={row} value={value} onChoose={choose} />
      <OriginMark title={title} level={from} onReset={from === 'default' ? null : reset} />
      {wrong !== null && (
        <span className="wrong" role="alert">
          {wrong}
        </span>
      )}
    </li>
  );
});
