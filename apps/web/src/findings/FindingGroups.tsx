import type { Finding } from '@isomeros/core/contract';
import { grouped } from '../app/parts/grouped.js';
import { FindingGroup } from './FindingGroup.js';

interface Props {
  readonly findings: readonly Finding[];
  readonly onStatement: (line: number) => void;
}

/** Findings that come from one decision, or are of one kind, stand together. */
export function FindingGroups({ findings, onStatement }: Props): React.JSX.Element {
  const groups = [...grouped(findings, ({ id, cause }) => `${id} ${JSON.stringify(cause ?? null)}`)];
  return (
    <>
      {groups.map(([key, alike]) => (
        <FindingGroup key={key} findings={alike} onStatement={onStatement} />
      ))}
    </>
  );
}
