import type { Contract } from '@isomeros/core/contract';
import type { Model } from '@isomeros/core/model';
import { useMemo } from 'react';
import { ReasonTrail } from '../app/parts/ReasonTrail.js';
import type { TreeRow } from '../app/parts/treeRows.js';
import { useAppSelector } from '../app/store.js';
import { impliedBy } from '../design/implied.js';
import { QuestionsPanel } from './questions/QuestionsPanel.js';

interface Props {
  /** The path that is asked why. */
  readonly row: TreeRow | undefined;
  /** The statement that is asked what it implies, by its identity. */
  readonly statement: string | null;
  readonly onStatement: (line: number) => void;
}

/** Under the two faces: what the selection implies or why it is there, and what nobody has said yet. */
export function ImpliedStrip({ row, statement, onStatement }: Props): React.JSX.Element {
  const { contract, derived, text } = useAppSelector((state) => state.design);
  return (
    <div className="model-strip">
      {row === undefined ? (
        <Implies contract={contract} model={derived?.model ?? null} statement={statement} />
      ) : (
        <section className="panel" aria-label="Why">
          <header className="panel-head">
            <h2>Why</h2>
            <code>{(contract?.root ?? '') + row.resource.path}</code>
          </header>
          <div className="panel-body">
            <ReasonTrail
              reasons={row.resource.reasons}
              places={derived?.places ?? {}}
              text={text}
              onStatement={onStatement}
            />
          </div>
        </section>
      )}
      <QuestionsPanel onStatement={onStatement} />
    </div>
  );
}

interface ImpliesProps {
  readonly contract: Contract | null;
  readonly model: Model | null;
  readonly statement: string | null;
}

/** What the selected statement implies; with nothing selected, the top of the path tree. */
function Implies({ contract, model, statement }: ImpliesProps): React.JSX.Element {
  const implied = useMemo(
    () =>
      contract === null || model === null || statement === null
        ? null
        : impliedBy(contract, model, statement),
    [contract, model, statement],
  );
  const tops = useMemo(() => (contract === null ? [] : topLevels(contract)), [contract]);
  return (
    <section className="panel" aria-label="What this implies">
      <header className="panel-head">
        <h2>What this implies</h2>
        <span className="quiet">
          {implied === null
            ? `${contract?.resources.length ?? 0} paths, ${contract?.operations.length ?? 0} operations under ${contract?.root ?? ''}`
            : `the selected statement: ${counted(implied.paths.length, 'path')}, ${counted(implied.members.length, 'member')}`}
        </span>
      </header>
      <div className="panel-body">
        {implied === null ? (
          <ul className="tops">
            {tops.map(({ path, below, paths, operations }) => (
              <li key={path}>
                <code className="strong">{path}</code>
                <code className="quiet below">{below}</code>
                <span className="quiet">
                  {paths} {paths === 1 ? 'path' : 'paths'}
                </span>
                <span className="quiet">
                  {operations} {operations === 1 ? 'operation' : 'operations'}
                </span>
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

const counted = (count: number, noun: string): string => `${count} ${noun}${count === 1 ? '' : 's'}`;

interface Top {
  readonly path: string;
  readonly below: string;
  readonly paths: number;
  readonly operations: number;
}

/** The first segments of the paths, each with the words that follow below it. */
function topLevels(contract: Contract): readonly Top[] {
  const tops = new Map<string, { words: Set<string>; paths: number; operations: number }>();
  const resourceTop = new Map<string, string>();
  for (const { id, path, segments } of contract.resources) {
    const top = `/${path.split('/')[1] ?? ''}`;
    resourceTop.set(id, top);
    const known = tops.get(top) ?? { words: new Set<string>(), paths: 0, operations: 0 };
    tops.set(top, known);
    known.paths++;
    const last = segments.at(-1);
    if (segments.length > 2 && last?.kind === 'literal') known.words.add(last.text);
  }
  for (const { resource } of contract.operations) {
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
