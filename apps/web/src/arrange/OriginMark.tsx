import type { SettingLevel } from '@isomeros/core/arrangement';
import { LevelScale } from './LevelScale.js';

interface Props {
  readonly title: string;
  readonly level: SettingLevel;
  /** Puts back what is inherited; `null` where there is nothing to put back here. */
  readonly onReset: (() => void) | null;
}

/** Where a value comes from: a scale of the levels, and the way back where it was chosen. */
export function OriginMark({ title, level, onReset }: Props): React.JSX.Element {
  if (onReset === null) return <LevelScale level={level} canFocus />;
  return (
    <button
      type="button"
      className="plain-button origin-mark"
      aria-label={`Reset ${title}`}
      title={`Chosen for the ${level}; reset it`}
      onClick={onReset}
    >
      <LevelScale level={level} canFocus={false} />
    </button>
  );
}
