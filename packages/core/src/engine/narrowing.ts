import { indexContract, type Contract, type Operation } from '../contract/index.js';
import { entryOf } from '../model/index.js';
import type { EngineRequest } from './message.js';
import { readTarget } from './target.js';

/** How one part of a target narrows the operations it may be for. */
export interface NarrowingStep {
  /** The root of the contract, a segment with a slash before it, or the method. */
  readonly part: string;
  /** How many operations are still possible. */
  readonly left: number;
  readonly lost: readonly LostOperations[];
}

export interface LostOperations {
  readonly operations: readonly string[];
  readonly why: string;
}

interface Candidate {
  readonly operation: Operation;
  /** Of its path without the root; `null` stands for an id. */
  readonly texts: readonly (string | null)[];
}

/** Of a request, which operations each segment of its path, and then its method, leaves; until none is left. */
export function narrowingOf(
  contract: Contract,
  { method, target }: Pick<EngineRequest, 'method' | 'target'>,
): readonly NarrowingStep[] {
  const read = readTarget(target);
  if (!read.ok) return [];
  const root = contract.root.split('/').filter((text) => text !== '');
  const { segments } = read.target;
  const isBelow = root.every((text, at) => segments[at] === text);
  const all = candidatesOf(contract);
  const first: NarrowingStep = { part: contract.root || '/', left: isBelow ? all.length : 0, lost: [] };
  if (!isBelow) return [first];
  const given = segments.slice(root.length).filter((text, at, rest) => text !== '' || at < rest.length - 1);
  const steps: NarrowingStep[] = [first];
  let left = all;
  for (const [at, segment] of given.entries()) {
    const isLiteral = left.some(({ texts }) => texts[at] === segment);
    const narrowed = divide(left, ({ texts }) => {
      const text = texts[at];
      if (text === undefined) return `end before /${segment}`;
      if (text === null) return isLiteral ? `the literal ${segment} wins over an id` : null;
      return text === segment ? null : `another literal than ${segment}`;
    });
    left = narrowed.left;
    steps.push({ part: `/${segment}`, left: left.length, lost: narrowed.lost });
    if (left.length === 0) return steps;
  }
  const asked = method === 'HEAD' ? 'GET' : method;
  const last = divide(left, ({ texts, operation }) =>
    texts.length > given.length
      ? 'go on below it'
      : operation.method === asked
        ? null
        : `for ${operation.method}`,
  );
  return [...steps, { part: method, left: last.left.length, lost: last.lost }];
}

const candidatesOf = (contract: Contract): readonly Candidate[] => {
  const { resources } = indexContract(contract);
  return contract.operations.map((operation) => ({
    operation,
    texts: (resources.get(operation.resource)?.segments ?? []).map((segment) =>
      segment.kind === 'id' ? null : segment.text,
    ),
  }));
};

/** Those for which there is no reason to lose, and the others by their reason. */
function divide(
  candidates: readonly Candidate[],
  whyLost: (candidate: Candidate) => string | null,
): { readonly left: readonly Candidate[]; readonly lost: readonly LostOperations[] } {
  const left: Candidate[] = [];
  const lost = new Map<string, string[]>();
  for (const candidate of candidates) {
    const why = whyLost(candidate);
    if (why === null) left.push(candidate);
    else entryOf(lost, why, (): string[] => []).push(candidate.operation.id);
  }
  return { left, lost: [...lost].map(([why, operations]) => ({ operations, why })) };
}
