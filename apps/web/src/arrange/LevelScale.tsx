import { SETTING_LEVELS, type SettingLevel } from '@isomeros/core/arrangement';

/** A scale with a bar for each level; the one at which the value was chosen stands out. */
export function LevelScale({ level }: { readonly level: SettingLevel }): React.JSX.Element {
  return (
    <span className="level-scale" role="img" aria-label={`chosen at: ${level}`} title={level}>
      {SETTING_LEVELS.map((name) => (
        <span key={name} className={name === level ? 'here' : ''} />
      ))}
    </span>
  );
}
