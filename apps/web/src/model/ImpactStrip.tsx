import { memo, useDeferredValue, useMemo } from 'react';
import { WhyPanel } from '../app/parts/WhyPanel.js';
import type { OutlineRow } from '../app/parts/outlineRows.js';
import { useAppSelector } from '../app/store.js';
import { AS_OF_VALID, isBehindText } from '../design/behindText.js';
import { useAsked, type Ask } from '../design/derivation/useAsked.js';
import type { Impact } from '../design/derivation/impact.js';
import type { Outline } from '@isomeros/core/contract';
import { QuestionsPanel } from './questions/QuestionsPanel.js';
import { amount } from '../app/parts/amount.js';

interface Props {
  /** The path that is asked why. */
  readonly row: OutlineRow | undefined;
  /** The statement that is asked what it implies, by its identity. */
  readonly statement: string | null;
  readonly onStatement: (line: number) => void;
}

/** Under map or paths: what the selection implies or why it is there, and what nobody has said yet. */
export const ImpactStrip = memo(function ImpliedStrip({
  row,
  statement,
  onStatement,
}: Props): React.JSX.Element {
  const outline = useDeferredValue(useAppSelector((state) => state.derived.outline));
  return (
    <div className="model-strip">
      {row === undefined ? (
        <Implies outline={outline} statement={statement} />
      ) : (
        <WhyPanel label="Why" row={row} root={outline?.root ?? ''} onStatement={onStatement} />
      )}
      <QuestionsPanel onStatement={onStatement} />
    </div>
  );
});

interface ImpliesProps {
  readonly outline: Outline | null;
  readonly statement: string | null;
}

/** What a statement implies, asked of the worker; `null` while nothing is selected or the answer is on its way. */
function useImplied(outline: Outline | null, statement: string | null): Impact | null {
  const ask = useMemo<Ask<Impact | null> | null>(
    () => (statement === null || outline === null ? null : (derivation) => derivation.implied(statement)),
    [statement, outline],
  );
  return useAsked(ask, outline);
}

/** What the selected statement implies; with nothing selected, the top of the path tree. */
function Implies({ outline, statement }: ImpliesProps): React.JSX.Element {
  const implied = useImplied(outline, statement);
  const isBehind = useAppSelector(isBehindText);
  const tops = useMemo(() => (outline === null ? [] : topLevels(outline)), [outline]);
  return (
    <section className="panel" aria-label="What this implies">
      <header className="panel-head">
        <h2>What this implies</h2>
        <span className="quiet">
          {implied === null
            ? `${amount(outline?.resources.length ?? 0, 'path')}, ${amount(outline?.operations.length ?? 0, 'operation')} under ${outline?.root ?? ''}`
            : `the selected statement: ${amount(implied.paths.length, 'path')}, ${amount(implied.members.length, 'member')}`}
        </span>
        {isBehind && <span className="end behind">{AS_OF_VALID}</span>}
      </header>
      <div className="panel-body">
        {implied === null ? (
          <ul className="tops">
            {tops.map(({ path, below, paths, operations }) => (
              <li key={path}>
                <code className="strong">{path}</code>
                <code className="quiet below">{below}</code>
                <span className="quiet">{amount(paths, 'path')}</span>
                <span className="quiet">{amount(operations, 'operation')}</span>
              </li>
            ))}
          </ul>
        ) : (
          <div className="implied">
            <code>{implied.paths.join('\n')}</code>
            <code className="quiet">{implied.members.join('\n')}</code>
          </div>
        )}
      </div>
    </section>
  );
}

interface Top {
  readonly path: string;
  readonly below: string;
  readonly paths: number;
  readonly operations: number;
}

/** The first segments of the paths, each with the words that follow below it. */
function topLevels(outline: Outline): readonly Top[] {
  const tops = new Map<string, { words: Set<string>; paths: number; operations: number }>();
  const resourceTop = new Map<string, string>();
  for (const { id, path } of outline.resources) {
    const segments = path.split('/').slice(1);
    const top = `/${segments[0] ?? ''}`;
    resourceTop.set(id, top);
    const known = tops.get(top) ?? { words: new Set<string>(), paths: 0, operations: 0 };
    tops.set(top, known);
    known.paths++;
    const last = segments.at(-1);
    if (segments.length > 2 && last?.startsWith('{') === false) known.words.add(last);
  }
  for (const { resource } of outline.operations) {
    const known = tops.get(resourceTop.get(resource) ?? '');
    if (known !== undefined) known.operations++;
  }
  return [...tops].map(([path, { words, paths, operations }]) => ({
    path,
    below: [...words].join(' '),
    paths,
    operations,
  }));
}
