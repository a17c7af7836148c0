import type { Contract, Reasons } from '@isomeros/core/contract';
import type { Model } from '@isomeros/core/model';
import type { StatementPlace } from '@isomeros/core/notation';

/** What one statement of a model implies. */
export interface Impact {
  readonly paths: readonly string[];
  /** Members, as `Shape.member`. */
  readonly members: readonly string[];
}

const cites = (reasons: Reasons, ids: ReadonlySet<string>): boolean =>
  reasons.some(({ because }) => because.some((source) => source.kind === 'statement' && ids.has(source.id)));

/** Everything in a contract that has a statement, or one of those below it, among its reasons. */
export function impactOf(contract: Contract, model: Model, id: string): Impact {
  const ids = withParts(model, id);
  const items = contract.shapes.filter(({ purpose }) => purpose === 'item' || purpose === 'value');
  return {
    paths: contract.resources
      .filter(({ reasons }) => cites(reasons, ids))
      .map(({ path }) => contract.root + path),
    members: items.flatMap(({ name, members }) =>
      members.filter(({ reasons }) => cites(reasons, ids)).map((member) => `${name}.${member.name}`),
    ),
  };
}

/** A block stands for its attributes and their transitions too. */
function withParts(model: Model, id: string): ReadonlySet<string> {
  const ids = new Set([id]);
  for (const declaration of model.declarations) {
    if (declaration.id !== id || (declaration.kind !== 'entity' && declaration.kind !== 'value')) continue;
    for (const attribute of declaration.attributes) {
      ids.add(attribute.id);
      for (const transition of attribute.lifeCycle ?? []) ids.add(transition.id);
    }
  }
  return ids;
}

/** The identity of the statement at a line: the innermost one that reaches over it. */
export function statementAt(places: Readonly<Record<string, StatementPlace>>, line: number): string | null {
  let best: { readonly id: string; readonly size: number } | null = null;
  for (const [id, place] of Object.entries(places)) {
    if (place.line > line || place.endLine < line) continue;
    const size = place.endLine - place.line;
    if (best === null || size < best.size) best = { id, size };
  }
  return best?.id ?? null;
}
