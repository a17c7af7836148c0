import { isDecision, sourceKey, type CitedDecision, type Contract, type Reasons } from '../contract/index.js';
import { memoize } from '../model/index.js';

/** How something was decided; all that nobody decided is decided alike. */
function howOf(source: CitedDecision): string {
  switch (source.kind) {
    case 'setting':
      return JSON.stringify(source.value);
    case 'placement':
      return source.place;
    case 'word':
      return source.word;
    case 'exposure':
      return source.value ?? source.level;
    case 'link':
      return source.choice;
    case 'custom':
      return source.level;
    case 'own-link':
      return source.relation;
    case 'documentation':
      return source.fields.join();
  }
}

/** What was decided wherever a contract says why something is there. */
const decidedIn = memoize((contract: Contract): ReadonlyMap<string, CitedDecision> => {
  const found = new Map<string, CitedDecision>();
  const read = (reasons: Reasons): void => {
    for (const { because } of reasons)
      for (const source of because) if (isDecision(source)) found.set(sourceKey(source), source);
  };
  for (const { reasons, links, leftOutLinks, leftOut } of contract.resources) {
    read(reasons);
    for (const one of leftOut) read(one.reasons);
    for (const link of [...links, ...leftOutLinks]) read(link.reasons);
  }
  for (const { reasons, query, responses } of contract.operations) {
    read(reasons);
    for (const part of [...query, ...responses]) read(part.reasons);
  }
  for (const { reasons, members } of contract.shapes) {
    read(reasons);
    for (const member of members) read(member.reasons);
  }
  return found;
});

/**
 * Finds the decision that a difference between two contracts comes from: the first cited one that was decided otherwise
 * in the earlier. `null` where the model itself changed, or nobody can tell.
 */
export function causesBetween(
  earlier: Contract,
  later: Contract,
): (reasons: Reasons) => CitedDecision | null {
  const [then, now] = [decidedIn(earlier), decidedIn(later)];
  const isOther = (about: string, decision: CitedDecision): boolean => {
    const before = then.get(about);
    return decision.level !== 'default' && (before === undefined || howOf(before) !== howOf(decision));
  };
  let only: { readonly decision: CitedDecision | null } | undefined;
  return (reasons) => {
    for (const { because } of reasons)
      for (const source of because) {
        if (!isDecision(source)) continue;
        const about = sourceKey(source);
        const before = then.get(about);
        // What is gone cites how things were decided then.
        const after = before !== undefined && howOf(before) === howOf(source) ? now.get(about) : source;
        if (after !== undefined && isOther(about, after)) return after;
      }
    only ??= {
      decision: sameRecords(earlier, later) ? onlyOne([...now].filter((entry) => isOther(...entry))) : null,
    };
    return only.decision;
  };
}

/** Where one thing alone was decided otherwise, everything follows from it. */
const onlyOne = (changed: readonly (readonly [string, CitedDecision])[]): CitedDecision | null =>
  changed.length === 1 ? (changed[0]?.[1] ?? null) : null;

/** What is known of each record, without what it is called. */
const membersOf = (contract: Contract): string =>
  contract.shapes
    .flatMap(({ purpose, of, members }) =>
      members.map(({ source, type, required, nullable }) =>
        JSON.stringify([purpose, of, source, type, required, nullable]),
      ),
    )
    .sort()
    .join('\n');

const sameRecords = (earlier: Contract, later: Contract): boolean => membersOf(earlier) === membersOf(later);
