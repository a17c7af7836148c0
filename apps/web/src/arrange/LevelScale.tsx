import type { SettingLevel } from '@isomeros/core/arrangement';

/** From the most general level to the nearest one. */
const LEVELS: readonly SettingLevel[] = ['default', 'design', 'arrangement'];

/** A scale with a bar for each level; the one at which the value was chosen stands out. */
export function LevelScale({ level }: { readonly level: SettingLevel }): React.JSX.Element {
  return (
    <span className="level-scale" role="img" aria-label={`chosen at: ${level}`}>
      {LEVELS.map((name) => (
        <span key={name} className={name === level ? 'here' : ''} />
      ))}
    </span>
  );
}
