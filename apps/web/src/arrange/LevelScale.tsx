import { Tooltip } from 'antd';
import { SETTING_LEVELS, type SettingLevel } from '@isomeros/core/arrangement';

const LEVEL_WORDS: Readonly<Record<SettingLevel, string>> = {
  default: 'default: nobody chose it',
  design: 'design: chosen for all arrangements',
  arrangement: 'arrangement: chosen for all its paths',
  resource: 'resource: chosen for this path',
  operation: 'operation: chosen for this one',
};

interface Props {
  readonly level: SettingLevel;
  /** Whether the keyboard reaches it; a button around it says the same. */
  readonly canFocus: boolean;
}

/** A scale with a bar for each level; the one at which the value was chosen stands out. */
export function LevelScale({ level, canFocus }: Props): React.JSX.Element {
  return (
    <Tooltip title={LEVEL_WORDS[level]} trigger={['hover', 'focus']}>
      <span
        className="level-scale"
        role="img"
        aria-label={`chosen at: ${level}`}
        tabIndex={canFocus ? 0 : undefined}
      >
        {SETTING_LEVELS.map((name) => (
          <span key={name} className={name === level ? 'here' : ''} />
        ))}
      </span>
    </Tooltip>
  );
}
