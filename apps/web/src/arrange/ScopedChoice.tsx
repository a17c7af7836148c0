import { Button, Segmented, Tooltip } from 'antd';
import { BreakingLines, ConsequenceCounts, ConsequenceDetails } from './ConsequenceLines.js';
import { SCOPES, type Scope, type Scoped, type ScopedChange } from './useScoped.js';

/** For which paths something is chosen. */
export const ScopeChooser = ({
  scoped,
  label,
}: {
  readonly scoped: Scoped;
  readonly label: string;
}): React.JSX.Element => (
  <Segmented<Scope>
    aria-label={label}
    options={[...SCOPES]}
    value={scoped.scope}
    onChange={scoped.setScope}
  />
);

/** Several choices that are taken together. */
export type Bundle = ScopedChange & { readonly help: string };

interface BundlesProps {
  readonly scoped: Scoped;
  readonly bundles: readonly Bundle[];
}

/** Bundles to ask for. */
export const BundleButtons = ({ scoped, bundles }: BundlesProps): React.JSX.Element => (
  <span className="bundles">
    {bundles.map((bundle) => (
      <Tooltip key={bundle.title} title={bundle.help} placement="bottomRight" mouseEnterDelay={0.5}>
        <Button aria-pressed={scoped.asked?.title === bundle.title} onClick={() => scoped.ask(bundle)}>
          {bundle.title}
        </Button>
      </Tooltip>
    ))}
  </span>
);

const IN_WORDS: Readonly<Record<Scope, string>> = {
  'this path': 'at this path',
  'its branch': 'at this path and below it',
  'all paths': 'at every path of the arrangement',
};

/** What would follow from what was asked for, to be taken or left. */
export function ConsequencePanel({ scoped }: { readonly scoped: Scoped }): React.JSX.Element | null {
  const { asked, scope, consequence, ask, take } = scoped;
  if (asked === null) return null;
  return (
    <div className="move-panel" aria-label="What would follow" role="region" aria-live="polite">
      <p className="asked">
        <span className="strong">{asked.title}</span> <span className="quiet">{IN_WORDS[scope]}</span>
        <span className="end">
          <ConsequenceCounts consequence={consequence} of="operation" />
        </span>
      </p>
      <p className="asked">
        <Button type="primary" autoFocus onClick={() => take(asked)}>
          Take it
        </Button>
        <Button onClick={() => ask(null)}>Leave it</Button>
      </p>
      {consequence !== null && (
        <>
          <ConsequenceDetails summary={consequence.summary} />
          <BreakingLines consequence={consequence} />
        </>
      )}
    </div>
  );
}
