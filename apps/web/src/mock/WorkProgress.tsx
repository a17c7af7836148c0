import type { Progress } from '@isomeros/core/model';
import { useEffect, useState } from 'react';
import { useFollowMockQuery } from './followMock.js';

const IN_WORDS: Readonly<Record<Progress['doing'], string>> = {
  reading: 'Reading',
  finding: 'Finding records by their keys',
  comparing: 'Comparing',
  checking: 'Checking',
  writing: 'Writing',
  making: 'Making',
};

/** What takes no longer is not told of. */
const LONG_MS = 1_000;

interface Props {
  /** The id of the mock. */
  readonly mock: string;
  readonly onCancel: () => void;
}

/** How far something is that takes over a second, and a way to end it. */
export function WorkProgress({ mock, onCancel }: Props): React.JSX.Element | null {
  const progress = useFollowMockQuery(mock).data?.progress ?? null;
  const [isLong, setLong] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLong(true), LONG_MS);
    return () => clearTimeout(timer);
  }, []);
  if (!isLong) return null;
  return (
    <div className="work-progress" role="status">
      {progress === null ? 'Working.' : `${IN_WORDS[progress.doing]}: ${progress.count} records.`}{' '}
      <button type="button" className="text-button" onClick={onCancel}>
        Cancel
      </button>
    </div>
  );
}
