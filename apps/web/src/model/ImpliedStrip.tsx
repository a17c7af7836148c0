import type { Assumption, Finding } from '@isomeros/core/contract';
import { ReasonTrail } from '../app/parts/ReasonTrail.js';
import type { TreeRow } from '../app/parts/treeRows.js';
import { useAppSelector } from '../app/store.js';

interface Props {
  readonly row: TreeRow | undefined;
  readonly onStatement: (line: number) => void;
}

/** Under the two faces: why the chosen path is there, and what nobody has said yet. */
export function ImpliedStrip({ row, onStatement }: Props): React.JSX.Element {
  const { contract, derived, text } = useAppSelector((state) => state.design);
  const assumptions = contract?.assumptions ?? [];
  const findings = contract?.findings ?? [];
  return (
    <div className="model-strip">
      <section className="panel" aria-label="Why">
        <header className="panel-head">
          <h2>Why</h2>
          {row !== undefined && <code>{(contract?.root ?? '') + row.resource.path}</code>}
        </header>
        <div className="panel-body">
          {row === undefined ? (
            <p className="empty-note">
              Choose a path to read why it is there, and which line of the model said so.
            </p>
          ) : (
            <ReasonTrail
              reasons={row.resource.reasons}
              places={derived?.places ?? {}}
              text={text}
              onStatement={onStatement}
            />
          )}
        </div>
      </section>
      <section className="panel" aria-label="Findings and assumptions">
        <header className="panel-head">
          <h2>
            {findings.length} {findings.length === 1 ? 'finding' : 'findings'}, {assumptions.length}{' '}
            {assumptions.length === 1 ? 'assumption' : 'assumptions'}
          </h2>
          <span className="quiet">nobody said, so derivation decided</span>
        </header>
        <div className="panel-body">
          <ul className="model-findings">
            {findings.map((finding) => (
              <FindingRow key={`${finding.id} ${finding.about}`} finding={finding} />
            ))}
          </ul>
          <ul className="assumptions">
            {assumptions.map((assumption) => (
              <AssumptionRow key={assumption.id} assumption={assumption} />
            ))}
          </ul>
        </div>
      </section>
    </div>
  );
}

function FindingRow({ finding }: { readonly finding: Finding }): React.JSX.Element {
  return (
    <li>
      <span className={`severity ${finding.severity}`}>{finding.severity}</span>
      {finding.message}
    </li>
  );
}

function AssumptionRow({ assumption }: { readonly assumption: Assumption }): React.JSX.Element {
  return (
    <li>
      <div className="strong">{assumption.question}</div>
      <div className="answer">
        <span className="assumed">{assumption.assumed}, assumed</span>
        <span>or {assumption.alternatives.join(', or ')}</span>
      </div>
    </li>
  );
}
