import {
  firstWays,
  ledTo,
  linkSteps,
  type FirstWay,
  type Link,
  type Operation,
  type QuickFix,
  type Resource,
  type StepsFrom,
} from '../../contract/index.js';
import { becauseSet, valueOf, type DerivationContext } from '../context.js';

/**
 * Reports where what was decided about links leaves a client nowhere to go: what nothing leads to any more, what leads
 * only to itself, and links that are off altogether.
 */
export function findLinkWays(
  context: DerivationContext,
  resources: readonly Resource[],
  operations: readonly Operation[],
): void {
  if (areOff(context)) return;
  const decided = resources.filter(({ leftOutLinks }) => leftOutLinks.length > 0);
  if (decided.length === 0) return;
  const readable = new Set(
    operations.flatMap(({ method, resource }) => (method === 'GET' ? [resource] : [])),
  );
  // Whether records in lists lead on is decided for all of them at once, and told of once.
  const memberLinks = valueOf(context, 'memberLinks') === 'none' ? 'self' : valueOf(context, 'memberLinks');
  const stepsOf = (all: readonly Resource[]): StepsFrom =>
    linkSteps({ resources: all, representation: { memberLinks } });
  const steps = stepsOf(resources);
  const waysBy = (among: StepsFrom) => firstWays(among, 'entry', (id) => readable.has(id));
  const now = waysBy(steps);
  const before = waysBy(
    stepsOf(resources.map((one) => ({ ...one, links: [...one.links, ...one.leftOutLinks] }))),
  );
  const leftOut = new Map(decided.flatMap((from) => from.leftOutLinks.map((link) => [link, from] as const)));
  for (const resource of resources) {
    if (before.has(resource.id) && !now.has(resource.id))
      unreachable(context, leftOut, missingOn(before, leftOut, resource.id), resource);
    const isEnd = readable.has(resource.id) && (steps.get(resource.id) ?? []).length === 0;
    if (isEnd && resource.leftOutLinks.some(leadsOn)) deadEnd(context, resource);
  }
}

function areOff(context: DerivationContext): boolean {
  const isInJson = valueOf(context, 'mediaTypes').includes('json');
  const isHal = valueOf(context, 'mediaTypes').includes('hal');
  if (valueOf(context, 'links') === 'none' && isInJson && !isHal) {
    context.findings.push({
      id: 'link.off',
      severity: 'doubtful',
      message: 'Answers carry no links: a client must know every path beforehand.',
      about: 'entry',
      reasons: [becauseSet(context, 'finding.links-off', ['links', 'mediaTypes'])],
      quickFixes: [
        { title: 'Links in an object', answer: { kind: 'setting', name: 'links', value: 'object' } },
      ],
    });
    return true;
  }
  if (valueOf(context, 'memberLinks') === 'none')
    context.findings.push({
      id: 'link.off',
      severity: 'doubtful',
      message: 'Records in lists carry no links: a client must know how to read one of them.',
      about: 'entry',
      reasons: [becauseSet(context, 'finding.links-off', ['memberLinks'])],
      quickFixes: [
        { title: 'Link each to itself', answer: { kind: 'setting', name: 'memberLinks', value: 'self' } },
      ],
    });
  return false;
}

const leadsOn = ({ target: { kind } }: Link): boolean =>
  kind !== 'self' && kind !== 'page' && kind !== 'pair' && kind !== 'about';

const bringBack = (resource: Resource, { id, relation }: Link): QuickFix => ({
  title: `Bring back ${relation}`,
  answer: { kind: 'link', resource: resource.id, link: id, choice: null },
});

/** Links that were left out, each with the resource they were left out of. */
type LeftOut = ReadonlyMap<Link, Resource>;

/** The links that were left out on the first way to a resource, the last of them first. */
function missingOn(ways: ReadonlyMap<string, FirstWay>, leftOut: LeftOut, resource: string): readonly Link[] {
  const missing: Link[] = [];
  for (let step = ways.get(resource)?.step; step != null; step = ways.get(step.from)?.step)
    if (leftOut.has(step.link)) missing.push(step.link);
  return missing;
}

/** Reported with a way back: what leads there itself, else what leads on to it. */
function unreachable(
  context: DerivationContext,
  leftOut: LeftOut,
  missing: readonly Link[],
  resource: Resource,
): void {
  const direct = [...leftOut.keys()].filter((link) => ledTo(link.target) === resource.id);
  const ways = [...new Set([...direct, ...missing])].flatMap((link) => {
    const from = leftOut.get(link);
    return from === undefined ? [] : [[from, link] as const];
  });
  const [first] = ways;
  const where = first === undefined ? '' : ` ${first[1].relation} was left out at ${shown(first[0])}.`;
  context.findings.push({
    id: 'link.unreachable',
    severity: 'doubtful',
    message: `Nothing leads to ${shown(resource)}.${where}`,
    about: resource.id,
    reasons: [
      { rule: 'finding.unreachable', because: [] },
      ...ways.flatMap(([, { reasons }]) => reasons.filter(({ rule }) => rule === 'link.chosen')),
    ],
    quickFixes: ways.map(([from, link]) => bringBack(from, link)),
  });
}

function deadEnd(context: DerivationContext, resource: Resource): void {
  const out = resource.leftOutLinks.filter(leadsOn);
  context.findings.push({
    id: 'link.dead-end',
    severity: 'doubtful',
    message: `${shown(resource)} leads nowhere: ${out.map(({ relation }) => relation).join(', ')} ${out.length === 1 ? 'was' : 'were'} left out.`,
    about: resource.id,
    reasons: [
      { rule: 'finding.dead-end-links', because: [] },
      ...out.flatMap(({ reasons }) => reasons.filter(({ rule }) => rule === 'link.chosen')),
    ],
    quickFixes: out.map((link) => bringBack(resource, link)),
  });
}

const shown = ({ path }: Resource): string => (path === '' ? 'the entry' : path);
