import type { ReactNode } from 'react';
import { useAppSelector } from '../store.js';
import type { OutlineRow } from './outlineRows.js';
import { ReasonTrail } from './ReasonTrail.js';

interface Props {
  readonly label: string;
  readonly row: OutlineRow;
  readonly root: string;
  readonly onStatement: (line: number) => void;
  /** What stands below the reasons. */
  readonly children?: ReactNode;
}

const NOWHERE = {};

/** Why a path is there. */
export function WhyPanel({ label, row, root, onStatement, children }: Props): React.JSX.Element {
  const places = useAppSelector((state) => state.derived.reading?.places ?? NOWHERE);
  const text = useAppSelector((state) => state.document.text);
  return (
    <section className="panel" aria-label={label}>
      <header className="panel-head">
        <h2>Why</h2>
        <code>{root + row.resource.path}</code>
      </header>
      <div className="panel-body">
        <ReasonTrail reasons={row.resource.reasons} places={places} text={text} onStatement={onStatement} />
        {children}
      </div>
    </section>
  );
}
