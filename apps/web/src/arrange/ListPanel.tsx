import { LIST_BUNDLES, withListBundle } from '@isomeros/core/arrangement';
import type { ResourceKind } from '@isomeros/core/contract';
import { ExplainedWords } from '../app/help/Explained.js';
import { ConsequencePanel, BundleButtons, ScopeChooser, type Bundle } from './ScopedChoice.js';
import { useScoped } from './useScoped.js';

const BUNDLES: readonly Bundle[] = LIST_BUNDLES.map((bundle) => ({
  title: bundle.title,
  help: bundle.help,
  change: (choices, arrangement, where) => withListBundle(choices, arrangement, where, bundle),
}));

const LISTS: ReadonlySet<ResourceKind> = new Set(['collection', 'reverse', 'pairing']);

/** How a list, those of its branch or all lists are answered, chosen in one step; each setting can be chosen below. */
export function ListPanel({ resource }: { readonly resource: string }): React.JSX.Element {
  const scoped = useScoped(resource, LISTS);
  return (
    <section className="offer-panel" aria-label="How the list is answered">
      <h3 className="section-head">
        <ExplainedWords by="arrange.lists">List</ExplainedWords>
        <span className="end">
          <ScopeChooser scoped={scoped} label="Answer so" />
        </span>
      </h3>
      <div className="offers" role="group" aria-label="Answered">
        <BundleButtons scoped={scoped} bundles={BUNDLES} />
      </div>
      <ConsequencePanel scoped={scoped} />
    </section>
  );
}
